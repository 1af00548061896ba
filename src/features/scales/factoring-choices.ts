import { EXTRACTION_WORDS } from "@/study/report/factoring-words";

/** Extractions and rotations as choices of a sentence; the default first. */
export const EXTRACTION_CHOICES = Object.entries(EXTRACTION_WORDS).map(([value, label]) => ({ value, label }));

export const ROTATION_CHOICES = [
  { value: "varimax", label: "varimax", search: "orthogonal" },
  { value: "promax", label: "promax", search: "oblique" },
  { value: "oblimin", label: "oblimin", search: "oblique" },
  { value: "none", label: "nothing", search: "unrotated" },
];
