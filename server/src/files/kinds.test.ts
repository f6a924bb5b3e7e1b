import { isWhatItSays } from './kinds';

const of = (text: string) => Buffer.from(text, 'latin1');

test('a file that is another than its name says is told by how it begins', () => {
  const right: [string, string][] = [
    ['a.pdf', '%PDF-1.7'],
    ['a.PNG', '\x89PNG\r\n\x1a\n'],
    ['a.jpeg', '\xff\xd8\xff\xe0'],
    ['a.webp', 'RIFF1234WEBPVP8 '],
    ['a.docx', 'PK\x03\x04'],
    ['a.doc', '\xd0\xcf\x11\xe0'],
    ['a.mp4', '\0\0\0\x18ftypisom'],
    ['a.txt', 'Ebb and flow'],
    ['a.mp3', 'ID3'],
    ['a.csv', '\xff\xfeN\0a\0m\0e\0'],
    ['a.doc', '{\\rtf1 Tides}'],
    ['a.xls', 'Name\tGroup\n'],
  ];
  for (const [name, head] of right) expect([name, isWhatItSays(name, of(head))]).toEqual([name, true]);
  for (const name of ['a.pdf', 'a.png', 'a.jpg', 'a.gif', 'a.webp', 'a.zip', 'a.doc', 'a.mp4', 'a.webm'])
    expect([name, isWhatItSays(name, of('MZ\x90\0 a program'))]).toEqual([name, false]);
  expect(isWhatItSays('a.txt', of('MZ\0'))).toBe(false);
});
