"use client";

import type { StructureAnalysis } from "@/study/analyse/analyse-structure";
import type { Structure } from "@/study/model/structure";
import { NameWord } from "@/ui/parts/NameWord";
import page from "@/ui/parts/page.module.css";
import { SettingWord } from "@/ui/parts/SettingWord";
import { EXTRACTION_CHOICES, ROTATION_CHOICES } from "./factoring-choices";
import { RespondentsWords } from "@/features/study/RespondentsWords";

/** The heading of a structure: which items, on whom, how many factors, found and turned how. */
export function StructureSentence(props: {
  structure: Structure;
  analysis: StructureAnalysis | null;
  onChange: (structure: Structure) => void;
}) {
  const { structure, analysis, onChange } = props;
  const change = (to: Partial<Structure>) => onChange({ ...structure, ...to });
  const suggested = analysis ? Math.max(1, analysis.parallel.retained) : null;
  const most = Math.max(structure.factors ?? 1, Math.min(20, structure.items.length - 1));
  const one = (analysis?.factors ?? structure.factors) === 1;
  return (
    <h1 className={page.sentence}>
      <NameWord label="Name of the structure" name={structure.name} onChange={(name) => change({ name })} />: behind{" "}
      {structure.items.length} items,{" "}
      <SettingWord
        label="Keying"
        value={structure.keying}
        text={structure.keying === "scales" ? "keyed as in their scales" : "as they were asked"}
        choices={[
          { value: "scales", label: "keyed as in their scales" },
          { value: "asked", label: "as they were asked" },
        ]}
        onChange={(keying) => change({ keying: keying as Structure["keying"] })}
      />
      <RespondentsWords before=", among" value={structure.respondents} onChange={(respondents) => change({ respondents })} />
      {one ? " lies " : " lie "}
      <SettingWord
        label="Number of factors"
        value={structure.factors === null ? "suggested" : String(structure.factors)}
        text={
          structure.factors === null
            ? `${suggested === null ? "as many" : suggested} ${one ? "factor" : "factors"}, as parallel analysis suggests`
            : `${structure.factors} ${one ? "factor" : "factors"}`
        }
        choices={[
          { value: "suggested", label: "as many as parallel analysis suggests" },
          ...Array.from({ length: most }, (_, i) => ({ value: String(i + 1), label: String(i + 1) })),
        ]}
        onChange={(n) => change({ factors: n === "suggested" ? null : Number(n) })}
      />
      , found by{" "}
      <SettingWord
        label="Extraction"
        value={structure.extraction}
        text={EXTRACTION_CHOICES.find((c) => c.value === structure.extraction)!.label}
        choices={EXTRACTION_CHOICES}
        onChange={(extraction) => change({ extraction: extraction as Structure["extraction"] })}
      />
      {!one && (
        <>
          {" "}
          and turned by{" "}
          <SettingWord
            label="Rotation"
            value={structure.rotation}
            text={ROTATION_CHOICES.find((c) => c.value === structure.rotation)!.label}
            choices={ROTATION_CHOICES}
            onChange={(rotation) => change({ rotation: rotation as Structure["rotation"] })}
          />
        </>
      )}
      .
    </h1>
  );
}
