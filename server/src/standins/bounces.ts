import type { SendMailOptions } from 'nodemailer';

/** Addresses that take no post: those of the domain that is never one (RFC 2606), and whoever has gone away. */
export const isUndeliverable = (address: string): boolean =>
  address.endsWith('.invalid') || address.startsWith('gone.away');

/** A delivery status notice for a letter that could not be delivered (RFC 3464), with the headers of the letter. */
export function bounceFor(raw: string, from: string, recipient: string): SendMailOptions {
  const headers = raw.split(/\r?\n\r?\n/, 1)[0]!;
  const mark = 'stand-in-report';
  const body = [
    'MIME-Version: 1.0',
    'From: Mail delivery <postmaster@stand-in.example>',
    `To: ${from}`,
    'Subject: Not delivered',
    'Auto-Submitted: auto-replied',
    `Content-Type: multipart/report; report-type=delivery-status; boundary="${mark}"`,
    '',
    `--${mark}`,
    'Content-Type: text/plain; charset=utf-8',
    '',
    `Your letter to ${recipient} could not be delivered.`,
    `--${mark}`,
    'Content-Type: message/delivery-status',
    '',
    'Reporting-MTA: dns; stand-in.example',
    '',
    `Final-Recipient: rfc822; ${recipient}`,
    'Action: failed',
    'Status: 5.1.1',
    'Diagnostic-Code: smtp; 550 There is no such mailbox.',
    '',
    `--${mark}`,
    'Content-Type: text/rfc822-headers',
    '',
    headers,
    '',
    `--${mark}--`,
    '',
  ].join('\r\n');
  return { envelope: { from: '', to: from }, raw: body };
}
