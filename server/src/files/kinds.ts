/** So much of a file is looked at, bytes. */
export const HEAD = 1024;

const starts = (text: string) => (head: Buffer) => head.subarray(0, text.length).toString('latin1') === text;
const ZIP = starts('PK');
const OLE = starts('\xd0\xcf\x11\xe0');
/** Text has no null in it, but where each letter has two bytes, which its first two say. */
const PLAIN = (head: Buffer) => !head.includes(0) || starts('\xff\xfe')(head) || starts('\xfe\xff')(head);
/** Programs write their older kinds as text or RTF too, by the same ending. */
const OFFICE = (head: Buffer) => OLE(head) || PLAIN(head);
/** The first box of a film: old ones begin with their data. */
const BOXES = ['ftyp', 'moov', 'mdat', 'wide', 'free', 'skip'];
/** How a file of a kind begins, by its ending: the published signature of its format. Others are text, or may be anything. */
const SIGNATURES: Record<string, (head: Buffer) => boolean> = {
  pdf: (head) => head.includes('%PDF-'),
  png: starts('\x89PNG\r\n'),
  jpg: starts('\xff\xd8\xff'),
  jpeg: starts('\xff\xd8\xff'),
  gif: starts('GIF8'),
  webp: (head) => starts('RIFF')(head) && head.subarray(8, 12).toString('latin1') === 'WEBP',
  zip: ZIP,
  docx: ZIP,
  xlsx: ZIP,
  pptx: ZIP,
  odt: ZIP,
  ods: ZIP,
  odp: ZIP,
  epub: ZIP,
  doc: OFFICE,
  xls: OFFICE,
  ppt: OFFICE,
  ogg: starts('OggS'),
  webm: starts('\x1a\x45\xdf\xa3'),
  mp4: (head) => BOXES.includes(head.subarray(4, 8).toString('latin1')),
};
const TEXT = new Set(['txt', 'md', 'csv', 'ics']);

/** Whether a file's beginning is what its name says. */
export function isWhatItSays(name: string, head: Buffer): boolean {
  const ending = name.split('.').pop()!.toLowerCase();
  if (TEXT.has(ending)) return PLAIN(head);
  return SIGNATURES[ending]?.(head) ?? true;
}
