/** A choice of a setting; choices with the same group stand together. */
export interface Choice {
  value: string;
  label: string;
  /** Added to what a search looks at: a variable's name beside its label. */
  search?: string;
  group?: string;
}
