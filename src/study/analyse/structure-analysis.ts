import type { Analysis } from "../kinds/kind";
import { type Structure, structureParts } from "../model/structure";
import { analyseStructure, type StructureResult, type StructureSpec } from "./analyse-structure";
import { structureResults } from "./structure-results";

export const analysis: Analysis<Structure, StructureSpec, StructureResult> = {
  run: (spec, { columns, progress, shelf }) => analyseStructure(spec, columns, progress, shelf("random eigenvalues")),
  results(structure, desk) {
    const parts = structureParts(desk.study.scales, structure);
    return structureResults(structure, this.run({ ...structure, parts }, desk));
  },
};
