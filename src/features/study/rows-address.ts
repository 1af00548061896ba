/** So many rows an address can hold. */
export const MOST_ROWS = 400;

/** Where some respondents are seen as rows, counted from 1. */
export const rowsAddress = (study: string, rows: readonly number[]) => `/studies/${study}/responses?rows=${rows.join(",")}`;
