import { archivePage } from './index';

const archived = {
  title: 'Tides & <b>"charts"</b>',
  lengthMs: 60_000,
  sound: 'sound.webm',
  pictures: [{ kind: 'screen' as const, at: 1000, length: 5000, file: 'picture-0.webm' }],
  chapters: [{ title: '</script><script>alert(1)</script>', position: 0 }],
  captions: [{ language: 'en', text: 'WEBVTT\n\n00:01.000 --> 00:02.000\nSaid </script> here\n' }],
  tables: [{ title: 'Table "<1>", 18:42', file: 'table-1-1.webm' }],
  lines: [{ position: 500, at: 1, by: 'Ana <i>', text: '<img src=x onerror=alert(1)>' }],
};

test('whatever is written in a recording ends neither the page nor its script', () => {
  const page = archivePage(archived);
  expect(page.match(/<\/script>/g)).toHaveLength(1);
  expect(page).not.toContain('<img src=x');
  expect(page).not.toContain('<b>"charts"');
  expect(page).toContain('<p>Table &quot;&lt;1>&quot;, 18:42<audio src="table-1-1.webm"');
  expect(page).toContain('<title>Tides &amp; &lt;b>&quot;charts&quot;&lt;/b></title>');
});

test('the page holds everything it needs, and asks nobody for anything', () => {
  const page = archivePage(archived);
  const script = /<script>([\s\S]*)<\/script>/.exec(page)![1]!;
  expect(() => new Function(script)).not.toThrow();
  expect(script).toContain('picture-0.webm');
  expect(script).toContain('\\u003cimg src=x');
  expect(page).not.toMatch(/https?:\/\//);
});

test('without captions, pictures and writing it is a page all the same', () => {
  const page = archivePage({ ...archived, pictures: [], captions: [], lines: [], chapters: [], tables: [] });
  expect(page).toContain('pictures=[]');
  expect(page).not.toContain('At the tables');
  expect(page).toContain('<p id="said" lang=""></p>');
});
