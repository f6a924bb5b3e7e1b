/** What a delivery status notice says of one recipient (RFC 3464 §2.3). */
export interface DeliveryStatus {
  recipient: string;
  /** `failed`, `delayed`, `delivered`, `relayed`, `expanded`. */
  action: string;
  /** Such as 5.1.1 (RFC 3463). */
  status: string;
  diagnostic: string;
}

/** The fields of a message/delivery-status part, a block a recipient; what is not of that kind gives none. */
export function statusesIn(text: string): DeliveryStatus[] {
  const blocks = text
    .replaceAll('\r\n', '\n')
    .replace(/\n[ \t]+/g, ' ')
    .split(/\n\s*\n/);
  return blocks.flatMap((block) => {
    const field = (name: string) => new RegExp(`^${name}:[ \\t]*(.*)$`, 'im').exec(block)?.[1]?.trim() ?? '';
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

/** The Message-ID in the headers of the letter that a notice sends back. */
export function messageIdIn(headers: string): string | null {
  const unfolded = headers.replaceAll('\r\n', '\n').replace(/\n[ \t]+/g, ' ');
  return /^message-id:[ \t]*(<[^<>\s]+>)/im.exec(unfolded)?.[1] ?? null;
}

/** A notice in words, for the delivery log. */
export const bounceWords = ({ status, diagnostic }: DeliveryStatus): string =>
  [diagnostic || 'The address does not take post.', status && `(${status})`].filter(Boolean).join(' ');
