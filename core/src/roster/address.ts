/**
 * One address, no display name: enough of RFC 5321's and RFC 6531's mailbox to catch what people mistype. Both sides may be
 * of any script; the words between the dots are not empty.
 */
const LOCAL = /^[^\s@<>,;:"()[\]\\.]+(?:\.[^\s@<>,;:"()[\]\\.]+)*$/u;
const LABEL = /^[\p{L}\p{N}](?:[\p{L}\p{N}\p{M}-]*[\p{L}\p{N}\p{M}])?$/u;

export function isAddress(text: string): boolean {
  const at = text.lastIndexOf('@');
  if (at < 1 || text.length > 254 || /[\p{C}\p{Z}]/u.test(text)) return false;
  const labels = text.slice(at + 1).split('.');
  return LOCAL.test(text.slice(0, at)) && labels.length > 1 && labels.every((l) => LABEL.test(l));
}

/** The end of addresses that are nobody's (RFC 2606): of people who have none here. They are not written to. */
export const NOBODYS = '@nimble-bell.invalid';
export const nobodysAddress = (as: 'visitor' | 'brought' | 'forgotten' | 'stand-in', id: string): string =>
  `${as}-${id}${NOBODYS}`;
export const isNobodys = (email: string): boolean => email.endsWith(NOBODYS);
