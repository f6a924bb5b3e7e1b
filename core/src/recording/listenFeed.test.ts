/** @jest-environment jsdom */
import { listenFeed } from './listenFeed';

/** As much of a browser's reader of XML as is asked here. */
interface Read {
  textContent: string;
  getAttribute: (name: string) => string | null;
  querySelector: (what: string) => Read | null;
  querySelectorAll: (what: string) => ArrayLike<Read>;
  documentElement: Read;
}
const { DOMParser } = globalThis as unknown as {
  DOMParser: new () => { parseFromString: (text: string, type: string) => Read };
};

const feed = (title: string) =>
  listenFeed({
    title: 'NAV 210 Tides & charts',
    about: 'What was recorded.',
    url: 'http://127.0.0.1:8300/api/listen/abc.rss?a=1&b=2',
    page: 'http://127.0.0.1:8300/in/abc',
    items: [
      {
        ...{ id: 'rec1', title, at: Date.UTC(2026, 9, 6, 21, 30), lengthMs: 3_725_000, bytes: 1234 },
        chapters: [{ position: 61_000, title: 'Springs <and> neaps' }],
        url: 'http://127.0.0.1:8300/api/listen/abc/rec1.mp3',
      },
    ],
  });

test.each([['Tides 3'], ['</title><script>alert(1)</script>'], ['"Ebb" & flow \u0007\uD800 🚢'], [']]>']])(
  'a feed is well-formed and says what RSS 2.0 asks for, whatever a recording is called: %s',
  (title) => {
    const read = new DOMParser().parseFromString(feed(title), 'application/xml');
    expect(read.querySelector('parsererror')).toBeNull();
    expect(read.documentElement.getAttribute('version')).toBe('2.0');
    for (const one of ['channel > title', 'channel > link', 'channel > description', 'item > guid'])
      expect(read.querySelector(one)?.textContent).toBeTruthy();
    expect(read.querySelectorAll('item, script')).toHaveLength(1);
    expect(read.querySelector('item > pubDate')!.textContent).toBe('Tue, 06 Oct 2026 21:30:00 GMT');
    expect(read.querySelector('item > description')!.textContent).toBe(
      '1:02:05 long.\n0:01:01 Springs <and> neaps',
    );
    const enclosure = read.querySelector('enclosure')!;
    expect(['url', 'length', 'type'].map((a) => enclosure.getAttribute(a))).toEqual([
      'http://127.0.0.1:8300/api/listen/abc/rec1.mp3',
      '1234',
      'audio/mpeg',
    ]);
  },
);
