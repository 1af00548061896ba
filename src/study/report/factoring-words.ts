/** Extraction methods as they stand in a sentence. */
export const EXTRACTION_WORDS = {
  "principal-axis": "principal axis",
  "maximum-likelihood": "maximum likelihood",
  "minimum-residual": "minimum residual",
  "principal-components": "principal components",
} as const;

/** Rotations as they stand in a sentence. */
export const ROTATION_WORDS = { varimax: "varimax", promax: "promax (κ = 4)", oblimin: "direct oblimin (γ = 0)", none: "nothing" } as const;
