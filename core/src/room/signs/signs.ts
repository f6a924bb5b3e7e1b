/** What somebody says without a word. */
export const SIGNS = ['withYou', 'lost', 'slower', 'faster', 'break', 'agree', 'away'] as const;
