import fc from 'fast-check';
import { answerWords, fits, isRight, optionsOf, questionFault, type Question } from './kinds';
import { readQuestion, writtenAs } from './read';
import { GivenAnswer, Question as Given } from './schema';
import { alike, tallyOf, tallyWithout } from './tally';

const question = (more: Partial<Question>): Question => ({
  ...{ text: '', kind: 'yesNo', options: [], right: null, anonymous: false },
  ...more,
});

describe('a question is read out of a text', () => {
  test.each([
    ['Is the tide falling?', 'yesNo', 'Is the tide falling?', []],
    ['Don’t forget: is it low water now?', 'words', 'Don’t forget: is it low water now?', []],
    ['Yes or no: we sail tonight', 'yesNo', 'we sail tonight', []],
    ['True or false: spring tides come at new moon.', 'trueFalse', 'spring tides come at new moon.', []],
    ['Neaps follow half moon. (true/false)', 'trueFalse', 'Neaps follow half moon.', []],
    ['How many fathoms are nine feet?', 'number', 'How many fathoms are nine feet?', []],
    ['Which year was this chart drawn?', 'number', 'Which year was this chart drawn?', []],
    ['What does this mark warn of?', 'words', 'What does this mark warn of?', []],
    ['Is it ebb or flood?', 'words', 'Is it ebb or flood?', []],
    ['The stream runs: north, east or south?', 'one', 'The stream runs', ['north', 'east', 'south']],
    ['Which is it?\nA) Ebb\nB) Flood\nC) Slack', 'one', 'Which is it?', ['Ebb', 'Flood', 'Slack']],
    ['Which is it? A) Ebb B) Flood C) Slack', 'one', 'Which is it?', ['Ebb', 'Flood', 'Slack']],
    ['Which is it?\n1. Ebb\n2. Flood', 'one', 'Which is it?', ['Ebb', 'Flood']],
    ['Which is it?\n– Ebb\n– Flood', 'one', 'Which is it?', ['Ebb', 'Flood']],
    ['Which of these are lights?\n• Fixed\n• Wet', 'several', 'Which of these are lights?', ['Fixed', 'Wet']],
    ['Choose all that apply\na. One\nb. Two', 'several', 'Choose all that apply', ['One', 'Two']],
    ['Put them in order:\n- Sail\n- Moor', 'order', 'Put them in order:', ['Sail', 'Moor']],
    ['Are we late?\nA) Yes\nB) No', 'yesNo', 'Are we late?', []],
    // A slide: a heading, a statement, and what it asks.
    [
      'Lights\nA light may be fixed.\nWhat colour is a port light?',
      'words',
      'What colour is a port light?',
      [],
    ],
    // Letters that do not follow one another are no choices; neither is one alone.
    ['B) is wrong\nD) too', 'words', 'B) is wrong D) too', []],
    ['Read chapter 2.\n- the part on lights', 'words', 'Read chapter 2. - the part on lights', []],
  ])('%j', (text, kind, asks, options) => {
    expect(readQuestion(text)).toEqual({ text: asks, kind, options, right: null });
  });

  test('the right one where it is marked', () => {
    expect(readQuestion('Which?\nA) Ebb\nB) Flood *')).toMatchObject({ right: 1, options: ['Ebb', 'Flood'] });
    expect(readQuestion('Which?\n[x] Ebb\n[ ] Flood\n[x] Slack')).toMatchObject({
      kind: 'several',
      right: [0, 2],
    });
    expect(readQuestion('Late?\nA) Yes (right)\nB) No')).toMatchObject({ kind: 'yesNo', right: 0 });
    expect(readQuestion('  \n ')).toBeNull();
  });

  test('whatever is written, what is read can be asked', () => {
    const line = fc.oneof(
      fc.string({ maxLength: 60 }),
      fc.constantFrom('A) x', 'B) y', '- z', '[x] w', 'True or false?', 'a: b, c or d?', 'in order', '1. q'),
    );
    fc.assert(
      fc.property(fc.array(line, { maxLength: 14 }), (lines) => {
        const read = readQuestion(lines.join('\n'));
        if (!read) return;
        const fault = questionFault(question(read));
        // Choices that say the same, or nothing, are the writer's to mend, and are said.
        expect(fault === null || /same|order/.test(fault)).toBe(true);
        expect(read.text.length).toBeLessThanOrEqual(500);
      }),
    );
  });
});

test('an answer fits its question or is none', () => {
  const one = question({ kind: 'one', options: ['Ebb', '', 'Slack'] });
  expect([0, 2, 3, -1, 0.5, 'Ebb', [0]].map((a) => fits(one, a))).toEqual([
    ...[true, true, false, false],
    ...[false, false, false],
  ]);
  const several = question({ kind: 'several', options: ['a', 'b'] });
  expect([[0], [1, 0], [], [0, 0], [2], 1].map((a) => fits(several, a))).toEqual([
    ...[true, true, false],
    ...[false, false, false],
  ]);
  const order = question({ kind: 'order', options: ['a', 'b'] });
  expect([[1, 0], [0]].map((a) => fits(order, a))).toEqual([true, false]);
  const number = question({ kind: 'number' });
  expect([3.5, NaN, Infinity, '3'].map((a) => fits(number, a))).toEqual([true, false, false, false]);
  expect([' ', 'ebb', 1].map((a) => fits(question({ kind: 'words' }), a))).toEqual([false, true, false]);
  expect(answerWords(one, 1)).toBe('B');
  expect(answerWords(order, [1, 0])).toBe('b, then a');
  expect(answerWords(number, 3.5)).toBe('3.5');
});

test('right is what says so: in any order of several, in any writing of words', () => {
  expect(isRight(question({ kind: 'several', options: ['a', 'b', 'c'], right: [0, 2] }), [2, 0])).toBe(true);
  expect(isRight(question({ kind: 'several', options: ['a', 'b', 'c'], right: [0, 2] }), [0])).toBe(false);
  expect(isRight(question({ kind: 'words', right: 'The Ebb' }), 'ébb!')).toBe(true);
  expect(isRight(question({ kind: 'order', options: ['a', 'b'], right: [1, 0] }), [0, 1])).toBe(false);
  expect(isRight(question({}), 0)).toBeNull();
  expect(questionFault(question({ kind: 'one', options: ['a'] }))).toContain('at least two');
  expect(questionFault(question({ kind: 'one', options: ['a', 'A '] }))).toContain('the same');
  expect(questionFault(question({ kind: 'number', right: 'ebb' }))).toContain('none of the answers');
});

test('answers in words that say the same are counted together, and no others', () => {
  expect(alike(['Ebb', 'ebb!', 'the ebb', 'Flood', 'flodo', 'Flod', 'slack', 'Slick'])).toEqual([
    { text: 'Ebb', count: 3 },
    { text: 'Flood', count: 2 },
    { text: 'slack', count: 2 },
    { text: 'Flod', count: 1 },
  ]);
  // Short words and figures are never a slip of one another.
  expect(alike(['port', 'part', 'buoy 11', 'buoy 12'])).toHaveLength(4);
  expect(alike(['🌊', '🌊', '⚓'])).toEqual([
    { text: '🌊', count: 2 },
    { text: '⚓', count: 1 },
  ]);
});

test('every answer is counted once, whatever the kind', () => {
  const kinds = fc.constantFrom('yesNo', 'one', 'number', 'words', 'order', 'several' as const);
  fc.assert(
    fc.property(kinds, fc.array(fc.nat({ max: 2 }), { maxLength: 40 }), (kind, picks) => {
      const asked = question({ kind, options: ['a', 'b', 'c'] });
      const of = optionsOf(asked).length;
      const answers = picks.map((p) =>
        kind === 'words' ? 'xyz'[p]! : kind === 'order' ? [p, (p + 1) % 3, (p + 2) % 3] : of ? p % of : p,
      );
      const { answered, counts, values, groups } = tallyOf(asked, answers);
      const sum = (all?: readonly number[]) => all?.reduce((a, b) => a + b, 0);
      expect(answered).toBe(picks.length);
      expect(sum(counts) ?? values?.length ?? sum(groups?.map((g) => g.count))).toBe(picks.length);
    }),
  );
  expect(
    tallyOf(question({ kind: 'order', options: ['a', 'b'] }), [
      [0, 1],
      [1, 0],
      [0, 1],
    ]),
  ).toEqual({ answered: 3, counts: [2, 1], places: [4 / 3, 5 / 3] });
});

test('words of somebody go out of what was shown', () => {
  const tally = tallyOf(question({ kind: 'words' }), ['Ebb', 'ebb', 'I am Ana']);
  expect(tallyWithout(tally, ['i am ana', 'EBB']).groups).toEqual([{ text: 'Ebb', count: 1 }]);
});

test('what is written down of a question is read as the same question', () => {
  const option = fc.stringMatching(/^[a-z]{1,8}( [a-z]{1,8}){0,2}$/);
  const options = fc.uniqueArray(option, { minLength: 2, maxLength: 10 });
  fc.assert(
    fc.property(options, fc.nat(), (some, n) => {
      for (const asked of [
        question({ text: 'Which is it?', kind: 'one', options: some, right: n % some.length }),
        question({ text: 'Which of these are?', kind: 'several', options: some, right: [n % some.length] }),
        question({ text: 'Put them in order', kind: 'order', options: some }),
      ]) {
        const { anonymous: _, ...rest } = asked;
        expect(readQuestion(writtenAs(asked))).toEqual(rest);
      }
    }),
  );
});

test('what turns words about, or cannot be seen, is taken out of what is asked and answered', () => {
  const odd = '\u202eWhich\u0000 is \u200bit?';
  const kept = Given.parse(question({ text: odd, kind: 'one', options: ['\u202eEbb', 'Flood'], right: 0 }));
  expect(kept).toMatchObject({ text: 'Which is it?', options: ['Ebb', 'Flood'], right: 0 });
  expect(GivenAnswer.parse(' \u202eebb ')).toBe('ebb');
  expect(GivenAnswer.safeParse('\u202e ').success).toBe(false);
  expect(Given.safeParse(question({ kind: 'one', options: ['Ebb', '\u200bebb'] })).success).toBe(false);
});

test('a place on a picture is read by its third', () => {
  const question = { kind: 'point' as const, options: [] };
  expect([
    answerWords(question, { x: 0.1, y: 0.1 }),
    answerWords(question, { x: 1, y: 1 }),
    answerWords(question, { x: 0.5, y: 0.34 }),
  ]).toEqual([
    'Top left (10 % across, 10 % down)',
    'Bottom right (100 % across, 100 % down)',
    'In the middle (50 % across, 34 % down)',
  ]);
});
