"use client";

import dynamic from "next/dynamic";
import { useSearchParams } from "next/navigation";
import { newId } from "@/study/model/new-id";
import { useStudy } from "@/features/study/study-context";
import type { Scale } from "@/study/model/scale";
import { Structure } from "@/study/model/structure";
import page from "@/ui/parts/page.module.css";
import { type Dragged, type DropPlace, ScalesDrag } from "./drag";
import { ItemBench } from "./ItemBench";
import { newScale, placeItems, takeOut } from "./scale-edits";
import { ScaleSheet } from "./ScaleSheet";
import { type Opened, SheetTitles } from "./SheetTitles";
import { StructureItems } from "./StructureItems";
import { StructureSheet } from "./StructureSheet";
import css from "./scales.module.css";

const FirstScales = dynamic(() => import("./FirstScales"));

/** The item bench on the left, one score sheet or structure in the middle. */
export function ScalesScreen() {
  const { study, store, title } = useStudy();
  // what is open stands in the address, so that it can be linked, reloaded and gone back to
  const params = useSearchParams();
  const named = (kind: Opened["kind"]): Opened | null => (params.has(kind) ? { kind, id: params.get(kind)! } : null);
  const asked = named("structure") ?? named("scale");
  const setAsked = ({ kind, id }: Opened) => {
    window.history.pushState(null, "", `?${kind}=${id}`);
    window.scrollTo(0, 0); // another sheet begins at its top
  };
  const structure = asked?.kind === "structure" ? (study.structures.find((s) => s.id === asked.id) ?? null) : null;
  const scale = structure ? null : (study.scales.find((s) => asked?.kind === "scale" && s.id === asked.id) ?? study.scales[0] ?? null);
  const openScale = (id: string) => setAsked({ kind: "scale", id });
  const saveScale = (to: Scale) => store.edit({ subject: "scale", id: to.id, to });

  const gather = (items: string[], name: string) => {
    const id = newId(name, [...store.snapshot().study.scales.map((s) => s.id), ...study.codebook.map((v) => v.name)]);
    if (saveScale(newScale(id, name, items))) openScale(id);
  };
  const explore = (items: string[], name: string) => {
    const id = newId(name, study.structures.map((s) => s.id)); // prettier-ignore
    const count = study.structures.filter((s) => s.name === name || s.name.startsWith(`${name} `)).length;
    const to = Structure.parse({ id, name: count === 0 ? name : `${name} ${count + 1}`, items });
    if (store.edit({ subject: "structure", id, to })) setAsked({ kind: "structure", id });
  };
  const exploreAll = () => {
    const scaled = [...new Set(study.scales.flatMap((s) => s.items.map((i) => i.variable)))].filter((name) =>
      study.codebook.some((v) => v.name === name),
    );
    explore(scaled.length > 2 ? scaled : study.codebook.filter((v) => v.kind === "item").map((v) => v.name), "All items");
  };
  const drop = ({ names, from }: Dragged, place: DropPlace) => {
    const leave = from === "sheet" && scale ? takeOut(scale, names) : null;
    const leaving = leave ? [{ subject: "scale" as const, id: leave.id, to: leave }] : [];
    if (place.kind === "row" && scale) {
      const first = scale.items.findIndex((item) => item.variable === names[0]);
      const after = from === "sheet" && first >= 0 && first < place.index;
      const to = placeItems(scale, names, after ? place.index + 1 : place.index);
      if (JSON.stringify(to.items) !== JSON.stringify(scale.items)) saveScale(to);
    } else if (place.kind === "sheet" && scale && from === "bench") saveScale(placeItems(scale, names));
    else if (place.kind === "title" && place.scale !== (from === "sheet" ? scale?.id : null)) {
      const target = study.scales.find((s) => s.id === place.scale)!;
      store.edit({ subject: "scale", id: target.id, to: placeItems(target, names) }, ...leaving);
    } else if (place.kind === "new") {
      const id = newId("New scale", [...study.scales.map((s) => s.id), ...study.codebook.map((v) => v.name)]);
      if (store.edit({ subject: "scale", id, to: newScale(id, "New scale", names) }, ...leaving)) openScale(id);
    } else if (place.kind === "bench") store.edit(...leaving);
  };

  const titles = (
    <SheetTitles
      open={structure ? { kind: "structure", id: structure.id } : scale ? { kind: "scale", id: scale.id } : null}
      onOpen={setAsked}
      onNewStructure={exploreAll}
    />
  );
  return (
    <ScalesDrag title={title} onDrop={drop}>
      <div className={`${page.page} ${css.place}`}>
        <aside className={page.side} aria-label={structure ? "Items of the structure" : "Item bench"}>
          <div className={page.stay}>
            {structure ? (
              <StructureItems structure={structure} onChange={(to) => store.edit({ subject: "structure", id: to.id, to })} />
            ) : (
              <ItemBench
                open={scale}
                onGather={gather}
                onJoin={(items) => scale && saveScale(placeItems(scale, items))}
                onStructure={(items) => explore(items, "Chosen items")}
              />
            )}
          </div>
        </aside>
        {structure ? (
          <StructureSheet key={structure.id} structure={structure} titles={titles} onOpenScale={openScale} />
        ) : scale ? (
          <ScaleSheet key={scale.id} scale={scale} titles={titles} onOpen={openScale} />
        ) : (
          <main className={page.sheet}>
            {titles}
            <FirstScales onGather={gather} />
          </main>
        )}
      </div>
    </ScalesDrag>
  );
}
