/** What a delivery status notice says of one recipient (RFC 3464 §2.3). */
export interface DeliveryStatus {
  recipient: string;
  /** `failed`, `delayed`, `delivered`, `relayed`, `expanded`. */
  action: string;
  /** Such as 5.1.1 (RFC 3463). */
  status: string;
  diagnostic: string;
}

export interface DeliveryNotice {
  statuses: DeliveryStatus[];
  /** Of the letter that the notice is about, where it sends back its headers. */
  messageId: string | null;
}

/** Reads a delivery status notice (RFC 3462, RFC 3464) from a whole letter; null where it is none. */
export function noticeIn(raw: string): DeliveryNotice | null {
  const letter = partOf(raw.replaceAll('\r\n', '\n'));
  if (!/^multipart\/report\b/i.test(letter.type) || !/delivery-status/i.test(letter.type)) return null;
  const parts = partsOf(letter);
  const status = parts.find((p) => /^message\/(global-)?delivery-status/i.test(p.type));
  if (!status) return null;
  const returned = parts.find((p) => /^(message\/(rfc822|global)|text\/rfc822-headers)/i.test(p.type));
  return { statuses: statusesIn(status.body), messageId: returned ? messageIdIn(returned.body) : null };
}

interface Part {
  type: string;
  body: string;
}

function partOf(text: string): Part {
  const end = text.search(/\n[ \t]*\n/);
  const head = unfolded(end < 0 ? text : text.slice(0, end));
  const body = end < 0 ? '' : text.slice(end).replace(/^\n[ \t]*\n/, '');
  const field = (name: string) => new RegExp(`^${name}:[ \\t]*(.*)$`, 'im').exec(head)?.[1]?.trim() ?? '';
  const base64 = /^base64$/i.test(field('Content-Transfer-Encoding'));
  return { type: field('Content-Type'), body: base64 ? fromBase64(body) : body };
}

function partsOf({ type, body }: Part): Part[] {
  const boundary = /boundary="?([^";\s]+)"?/i.exec(type)?.[1];
  if (!boundary) return [];
  return body
    .split(`--${boundary}`)
    .slice(1)
    .filter((p) => !p.startsWith('--'))
    .map((p) => partOf(p.replace(/^[ \t]*\n/, '')));
}

const unfolded = (text: string) => text.replace(/\n[ \t]+/g, ' ');

/** ASCII, which is what a status report holds; what is no base64 gives nothing. */
function fromBase64(text: string): string {
  const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/';
  let bits = 0;
  let held = 0;
  let out = '';
  for (const c of text) {
    const value = letters.indexOf(c);
    if (value < 0) continue;
    held = ((held << 6) | value) & 0xffff;
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    out += String.fromCharCode((held >> bits) & 0xff);
  }
  return out.replaceAll('\r\n', '\n');
}

function statusesIn(text: string): DeliveryStatus[] {
  return unfolded(text)
    .split(/\n\s*\n/)
    .flatMap((block) => {
      const field = (name: string) =>
        new RegExp(`^${name}:[ \\t]*(.*)$`, 'im').exec(block)?.[1]?.trim() ?? '';
      const recipient = bare(field('Final-Recipient') || field('Original-Recipient'));
      const action = field('Action').toLowerCase();
      if (!recipient || !action) return [];
      const diagnostic = field('Diagnostic-Code').replace(/^[a-z0-9-]+;\s*/i, '');
      return [
        { recipient, action, status: field('Status').slice(0, 20), diagnostic: diagnostic.slice(0, 400) },
      ];
    });
}

/** `rfc822; ana@saltmarsh.example` */
const bare = (field: string) =>
  field
    .replace(/^[a-z0-9-]+;\s*/i, '')
    .replace(/^<|>$/g, '')
    .trim()
    .toLowerCase();

const messageIdIn = (headers: string): string | null =>
  /^message-id:[ \t]*(<[^<>\s]+>)/im.exec(unfolded(headers))?.[1] ?? null;

/** A notice in words, for the delivery log. */
export const bounceWords = ({ status, diagnostic }: DeliveryStatus): string =>
  [diagnostic || 'The address does not take post.', status && `(${status})`].filter(Boolean).join(' ');
