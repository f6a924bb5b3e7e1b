/** What stand-ins write. Some of it from right to left, and some as one would rather not read it. */
export const SAID: readonly string[] = [
  'Good evening from the harbour office.',
  'Could you say that once more?',
  'I have it at 47 minutes, is that right?',
  'The second line of the table, or the third?',
  'Here it rains so hard that I hardly hear you.',
  'I think the sign is the other way round.',
  'Thank you, now it is clear.',
  'مساء الخير، هل هذا صحيح؟',
  'Do we need this for the exercise?',
  'לא הבנתי את השורה האחרונה',
  'My answer is “about four knots” – or is that too much?',
  'Where do I find the chart?',
];
export const RUDE: readonly string[] = [
  'This is so boring.',
  'WHY DOES THIS TAKE SO LONG',
  'Whoever chose this colour should not have.',
  'first!!! first!!! first!!!',
  'As if anybody understood that, honestly.',
];
export const GREETINGS: readonly string[] = ['Hello!', 'Good evening.', 'Hi, can you hear me?', 'مرحبا'];
export const AT_TABLES: readonly string[] = [
  'Who writes it down?',
  'I would begin with the tide table.',
  'Are we to do all of them?',
  'I have the first one.',
  'Shall we ask?',
];
export const SHORT_ANSWERS: readonly string[] = [
  'the tide',
  'The tide.',
  'tidal stream',
  'wind',
  'I do not know',
];
/** What those of a made-up class say aloud who are lent a microphone, in turn. */
export const ALOUD: readonly string[] = [
  'I have done the first one. High water is at six, so the fourth hour begins at nine. ' +
    'By then three twelfths more have run out. That is, half of the range in all, and a little more over the bar.',
  'I am not sure about the second line of the table. ' +
    'Is the height over the chart, or over the lowest tide? In my book it is one, and on the chart it is the other.',
  'We had the same in the harbour last week. The wind stood against the tide, and the water was higher than the table says. ' +
    'So I would add a hand to be safe.',
];
