/** p of a difference over all permutations: (1 + those at least as far apart) / (B + 1). */
export const permutationP = (beyond: number, permutations: number) => (1 + beyond) / (permutations + 1);
