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
