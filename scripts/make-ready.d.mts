/** Of everything that what is built is made of. */
export function sourcesHash(): string;
