/** Without accents, capitals and marks, single spaces: so that people and headings are compared by their letters. */
export const folded = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll('ß', 'ss')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

/** Whether two names would be read as the same: whatever their accents, capitals, spaces and order of parts. */
export const sameName = (a: string, b: string): boolean => key(a) === key(b);
const key = (name: string) =>
  folded(name.normalize('NFKC'))
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .sort()
    .join(' ');
