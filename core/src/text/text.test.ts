import { line, tidyProse } from './index';

const Title = line('Give it a title.', 20);
const said = (text: unknown) => Title.safeParse(text).error?.issues.map((i) => i.message);

test.each([
  ['  Tide   reading ', 'Tide reading'],
  ['Zoe\u0308', 'Zoë'],
  ['Chart\twork', 'Chart work'],
  ['می\u200cخواهم', 'می\u200cخواهم'],
  ['Bells 🔔', 'Bells 🔔'],
  ['=1+1 <b> \' "', '=1+1 <b> \' "'],
])('%j is kept as %j', (given, kept) => {
  expect(Title.parse(given)).toBe(kept);
});

test.each([
  ['   ', 'Give it a title.'],
  ['x'.repeat(21), 'At most 20 characters.'],
  ['a\u0000b', 'There is a character in it that cannot be seen, such as a line end.'],
  ['a\r\nBEGIN:VEVENT', 'There is a character in it that cannot be seen, such as a line end.'],
  ['abc\u202Efdp', 'There is a character in it that cannot be seen, such as a line end.'],
  ['\u200b', 'There is a character in it that cannot be seen, such as a line end.'],
  ['x\ud800y', 'There is a character in it that cannot be seen, such as a line end.'],
])('%j is refused', (given, why) => {
  expect(said(given)).toEqual([why]);
});

test('a text of several lines keeps its lines, and nothing that cannot be seen', () => {
  expect(tidyProse('One\r\ntwo\u2028three\tfour\u0000\u202E five\ud800 \u200b🔔')).toBe(
    'One\ntwo\nthree four five 🔔',
  );
});
