/** What browsers and Node both have; said here because the core takes neither's types. */
declare const TextDecoder: new (
  label: string,
  options?: { fatal?: boolean },
) => { decode(bytes: Uint8Array): string };

export type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/**
 * The text of a file whose encoding is not said: a byte order mark decides; without one, zero bytes in every other
 * place mean UTF-16, bytes that are valid UTF-8 are UTF-8, and anything else is Windows-1252, which every byte fits.
 */
export function decodeText(bytes: Uint8Array): { text: string; encoding: Encoding } {
  const encoding = encodingOf(bytes);
  if (encoding === 'utf-8')
    try {
      return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding };
    } catch {
      return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' };
    }
  return { text: new TextDecoder(encoding).decode(bytes), encoding };
}

function encodingOf(bytes: Uint8Array): Encoding {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return 'utf-16le';
  if (a === 0xfe && b === 0xff) return 'utf-16be';
  const head = bytes.subarray(0, 2000);
  const pairs = head.length >> 1;
  if (pairs < 2) return 'utf-8';
  let even = 0;
  let odd = 0;
  for (let i = 0; i < pairs; i++) {
    if (head[2 * i] === 0) even++;
    if (head[2 * i + 1] === 0) odd++;
  }
  if (odd > pairs * 0.4 && even === 0) return 'utf-16le';
  if (even > pairs * 0.4 && odd === 0) return 'utf-16be';
  return 'utf-8';
}
