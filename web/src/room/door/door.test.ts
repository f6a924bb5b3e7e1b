import { hearsTone } from './echo';
import { refusedWords } from './refusedWords';

test('a microphone hears the loudspeaker where a tone stands out of what was there before', () => {
  expect(hearsTone([-80, -79, -82], [-52, -50, -49])).toBe(true);
  expect(hearsTone([-80, -79, -82], [-75, -74, -78])).toBe(false);
  // One crack while it sounded is no tone; nothing heard at all is none.
  expect(hearsTone([-80, -80, -80], [-80, -20, -80])).toBe(false);
  expect(hearsTone([-80], [])).toBe(false);
});

test('a refusal is said with what to do in that browser', () => {
  const refused = { name: 'NotAllowedError', message: '' };
  const agents = ['iPhone Safari/604', 'Firefox/140.0', 'Chrome/140 Safari/537', 'Version/18 Safari/605', ''];
  const words = agents.map((agent) => refusedWords('sound', refused, agent));
  expect(new Set(words).size).toBe(5);
  for (const said of words) expect(said).toContain('does not allow the microphone');
  expect(refusedWords('camera', { name: 'NotReadableError', message: '' }, '')).toContain('another program');
  expect(refusedWords('camera', { name: 'Odd', message: 'why' }, '')).toContain('why');
});
