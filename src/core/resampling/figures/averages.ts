import type { ComponentColumn, DesignMatrix } from "../../regression/design-matrix";
import type { HeldAt } from "./figure";

/** The value of a category's column with its levels at equal weights (contract section 8). */
export function averagesByLevel({ tables }: DesignMatrix, { variable, level }: ComponentColumn): number {
  const table = tables.find((t) => t.variable === variable)!;
  const at = table.columns.indexOf(level!);
  return table.levels.reduce((sum, l) => sum + l.values[at]!, 0) / table.levels.length;
}

const NUMERIC: Record<string, number> = { low: -1, mean: 0, high: 1 };

/** Where a variable's components stand at one of its levels, or at mean − SD, mean or mean + SD. */
export function placesOf({ tables }: DesignMatrix, variable: string, level: string): HeldAt[] {
  const table = tables.find((t) => t.variable === variable);
  if (!table) return [{ component: variable, unit: "sd", value: NUMERIC[level]! }];
  const values = table.levels.find((l) => l.level === level)!.values;
  return table.columns.map((column, i): HeldAt => ({ component: `${variable}[${column}]`, unit: "raw", value: values[i]! }));
}
