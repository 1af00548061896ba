/** What a cell of categories is filed under. @param levels of the focal category, then of each moderator */
export const cellKey = (levels: readonly string[]) => JSON.stringify(levels);
