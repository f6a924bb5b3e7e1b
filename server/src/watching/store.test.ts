import { searchable } from './store';

test('what is looked for is words of letters and digits: no operator of the search is left of whatever is typed', () => {
  expect(searchable('spring TIDE')).toEqual({ indexed: ['spring', 'TIDE'], others: [] });
  expect(searchable('+tide* -"ebb" (flood) @3 ~neap <i>')).toEqual({
    indexed: ['tide', 'ebb', 'flood', 'neap'],
    others: [],
  });
  // What the index leaves out is read for: short words, and those that stand everywhere.
  expect(searchable('go with the flow at 6.5 to 10')).toEqual({
    indexed: ['flow'],
    others: ['go', 'with', 'the', 'at', 'to', '10'],
  });
  expect(searchable('Ångström ćurić 潮汐表 приливы')!.indexed).toEqual([
    'Ångström',
    'ćurić',
    '潮汐表',
    'приливы',
  ]);
  for (const nothing of ['', '  ', '+-*', 'a', '% _', '"']) expect(searchable(nothing)).toBeNull();
});
