import type { Instant } from '../calendar/zone';
import type { Chapter } from './timeline';

/** One recording as something to listen to. */
export interface ListenItem {
  id: string;
  title: string;
  at: Instant;
  lengthMs: number;
  chapters: readonly Chapter[];
  /** Where its sound (MP3) is had. */
  url: string;
  bytes: number;
}

export interface ListenFeed {
  title: string;
  about: string;
  /** Its own address, and that of the page it belongs to. */
  url: string;
  page: string;
  items: readonly ListenItem[];
}

/** What XML 1.0 has no place for; halves of a pair among it. */
const NONE =
  /[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]|[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/g;
const xml = (text: string) =>
  text
    .replace(NONE, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');

const clock = (ms: number) => {
  const two = (n: number) => String(n).padStart(2, '0');
  const s = Math.floor(ms / 1000);
  return `${Math.floor(s / 3600)}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}`;
};

/** As RFC 822 has an instant: "Tue, 06 Oct 2026 21:30:00 GMT". */
const stamp = (at: Instant) => new Date(at).toUTCString();

/** Recordings as an RSS 2.0 channel with an enclosure each, the newest first. */
export function listenFeed({ title, about, url, page, items }: ListenFeed): string {
  const item = (i: ListenItem) => `<item>
<title>${xml(i.title)}</title>
<guid isPermaLink="false">${xml(i.id)}</guid>
<pubDate>${stamp(i.at)}</pubDate>
<description>${xml([`${clock(i.lengthMs)} long.`, ...i.chapters.map((c) => `${clock(c.position)} ${c.title}`)].join('\n'))}</description>
<enclosure url="${xml(i.url)}" length="${i.bytes}" type="audio/mpeg"/>
</item>`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<rss version="2.0" xmlns:atom="http://www.w3.org/2005/Atom">
<channel>
<title>${xml(title)}</title>
<link>${xml(page)}</link>
<description>${xml(about)}</description>
<language>en</language>
<atom:link href="${xml(url)}" rel="self" type="application/rss+xml"/>
${items.map(item).join('\n')}
</channel>
</rss>
`;
}
