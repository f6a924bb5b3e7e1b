import { Judge, type Sample } from './judged';
import { Looks } from './looks';

const good: Sample = { lost: 0, roundTrip: 40 };
const weak: Sample = { lost: 0.08, roundTrip: 90 };
const poor: Sample = { lost: 0.3, roundTrip: 90 };
const through = (judge: Judge, ...samples: Sample[]) => samples.map((s) => judge.take(s));

test('one bad moment is no weak connection; two are, and it is good again once it has been for a while', () => {
  const judge = new Judge();
  expect(through(judge, good, poor, good, weak, weak)).toEqual(['good', 'good', 'good', 'good', 'weak']);
  expect(through(judge, good, good, good, good)).toEqual(['weak', 'weak', 'weak', 'good']);
  expect(through(judge, poor, poor)).toEqual(['good', 'poor']);
  expect(through(judge, weak, weak, weak, good)).toEqual(['poor', 'poor', 'poor', 'poor']);
  expect(new Judge().take({ lost: 0, roundTrip: 5000 })).toBe('good');
});

test('only the pictures that are shown are asked for, once for what changes together; with a poor line none', () => {
  jest.useFakeTimers();
  const asked: string[] = [];
  const words = ({ cameras, small }: { cameras: string[]; small: string[] }) =>
    cameras.map((m) => (small.includes(m) ? `(${m})` : m)).join(' ');
  const looks = new Looks({
    ask: (async (_name: string, look: { cameras: string[]; small: string[] }) =>
      void asked.push(words(look))) as never,
  });
  const leave = looks.want('ben', 'large');
  looks.want('ana', 'small');
  const twice = looks.want('ana', 'large');
  jest.advanceTimersByTime(300);
  twice();
  leave();
  looks.want('cleo', 'large');
  jest.advanceTimersByTime(300);
  looks.want('dora', 'small')();
  jest.advanceTimersByTime(300);
  looks.off(true);
  jest.advanceTimersByTime(300);
  looks.want('eve', 'small');
  jest.advanceTimersByTime(300);
  looks.off(false);
  jest.advanceTimersByTime(300);
  // Whoever is shown in two sizes is received in the larger.
  expect(asked).toEqual(['ana ben', '(ana) cleo', '', '(ana) cleo (eve)']);
  expect(words(looks.now())).toBe('(ana) cleo (eve)');
  jest.useRealTimers();
});
