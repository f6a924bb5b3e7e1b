/** A part of a letter: a paragraph, a list, a button, or a line apart. */
export type Block =
  | { kind: 'text'; pieces: Piece[] }
  | { kind: 'heading'; text: string }
  | { kind: 'list'; items: string[]; ordered?: boolean }
  | { kind: 'button'; label: string; url: string };

/** Running text, in which a phrase may be a link or marked. */
export interface Piece {
  text: string;
  url?: string | undefined;
  bold?: boolean;
  italic?: boolean;
}

export const paragraph = (text: string): Block => ({ kind: 'text', pieces: [{ text }] });

/** A letter for a reader without HTML: every address in full. */
export const textOf = (blocks: readonly Block[]): string =>
  blocks.map(blockText).filter(Boolean).join('\n\n');

function blockText(block: Block): string {
  switch (block.kind) {
    case 'text':
      return block.pieces.map((p) => (p.url && p.url !== p.text ? `${p.text} (${p.url})` : p.text)).join('');
    case 'heading':
      return block.text;
    case 'list':
      return block.items.map((item, i) => (block.ordered ? `${i + 1}. ${item}` : `- ${item}`)).join('\n');
    case 'button':
      return `${block.label}: ${block.url}`;
  }
}

export const escaped = (text: string): string =>
  text.replace(
    /[&<>"']/g,
    (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' })[c]!,
  );

/** Only addresses that a browser opens as a page or a letter: anything else is written out as text. */
const isSafe = (url: string) => /^(https?:|mailto:)/i.test(url);

/**
 * A letter as HTML that mail programs show alike: one column, styles in place, no pictures, nothing fetched; dark text
 * on paper, and readable when a program turns its colours round.
 */
export function htmlOf(title: string, blocks: readonly Block[], footer: string): string {
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="color-scheme" content="light dark"><title>${escaped(title)}</title></head>
<body style="margin:0;padding:0;background:#fbf7ee">
<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="background:#fbf7ee"><tr><td align="center" style="padding:20px 12px">
<table role="presentation" width="100%" cellpadding="0" cellspacing="0" style="max-width:560px;background:#ffffff;border:1px solid #e4ddcb;border-top:4px solid #1e5244;border-radius:6px"><tr><td style="padding:24px 26px;color:#22302b;font:16px/1.5 'Helvetica Neue',Arial,sans-serif">
<h1 style="margin:0 0 16px;font-size:20px;line-height:1.3;color:#1e5244">${escaped(title)}</h1>
${blocks.map(blockHtml).join('\n')}
<p style="margin:20px 0 0;padding-top:14px;border-top:1px solid #e4ddcb;font-size:13px;color:#5c6b66">${escaped(footer)}</p>
</td></tr></table>
</td></tr></table>
</body></html>`;
}

function blockHtml(block: Block): string {
  switch (block.kind) {
    case 'text':
      return `<p style="margin:0 0 14px">${block.pieces.map(pieceHtml).join('')}</p>`;
    case 'heading':
      return `<h2 style="margin:18px 0 8px;font-size:17px;color:#1e5244">${escaped(block.text)}</h2>`;
    case 'list': {
      const tag = block.ordered ? 'ol' : 'ul';
      const items = block.items.map((i) => `<li style="margin:0 0 6px">${escaped(i)}</li>`).join('');
      return `<${tag} style="margin:0 0 14px;padding-left:22px">${items}</${tag}>`;
    }
    case 'button':
      return `<p style="margin:18px 0"><a href="${escaped(block.url)}" style="display:inline-block;background:#1e5244;color:#ffffff;text-decoration:none;font-weight:bold;padding:12px 20px;border-radius:6px">${escaped(block.label)}</a></p>
<p style="margin:0 0 14px;font-size:13px;color:#5c6b66;word-break:break-all">${escaped(block.url)}</p>`;
  }
}

function pieceHtml({ text, url, bold, italic }: Piece): string {
  let html = escaped(text).replaceAll('\n', '<br>');
  if (bold) html = `<strong>${html}</strong>`;
  if (italic) html = `<em>${html}</em>`;
  return url && isSafe(url) ? `<a href="${escaped(url)}" style="color:#2f6f8f">${html}</a>` : html;
}
