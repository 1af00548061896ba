/** A column with its gaps: values count only where missing is 0. */
export interface GappedColumn {
  readonly values: Float64Array;
  readonly missing: Uint8Array;
}
