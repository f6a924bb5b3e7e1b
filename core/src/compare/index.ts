/** Small letters, and accents beside: how words are compared. */
export const folded = (text: string): string => text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
