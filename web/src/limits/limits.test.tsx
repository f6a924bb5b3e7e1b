import { fireEvent, screen, waitFor } from '@testing-library/react';
import { answerRequests, asked } from '../testing/answers';
import { inCourse } from '../testing/render';
import { DoorPage } from './DoorPage';
import { LimitsPage } from './LimitsPage';
import { TermPage } from './TermPage';

test('the limits page proves what is in force and saves all of it at once', async () => {
  answerRequests({
    'PUT /api/courses/course/limits': {},
    '/api/drafts?key=limits%2Fcourse': { draft: null },
  });
  inCourse({ limitsSet: { by: 'Maren Oduya', at: Date.UTC(2026, 9, 6, 21, 30) } }, <LimitsPage />);
  expect(await screen.findByText('Set by Maren Oduya, Tue 6 Oct, 18:30')).toBeTruthy();
  expect(screen.getByTestId('in-force').textContent).toContain('By hand: speak');
  expect((screen.getByRole('button', { name: 'Save the limits' }) as HTMLButtonElement).disabled).toBe(true);
  fireEvent.click(screen.getByLabelText('Speak: Closed'));
  fireEvent.click(screen.getByRole('button', { name: 'Save the limits' }));
  const saved = () => asked.find((a) => a.path === '/api/courses/course/limits');
  await waitFor(() => expect(saved()).toBeTruthy());
  expect(saved()!.body).toMatchObject({
    limits: { speak: 'closed', camera: 'open', writeToTeachers: 'open' },
  });
});

test('what was chosen and not saved is there again, and said not to be in force', async () => {
  answerRequests({
    '/api/drafts?key=limits%2Fcourse': { draft: { body: { speak: 'closed' }, at: 0 } },
  });
  inCourse({}, <LimitsPage />);
  const speak = (await screen.findByLabelText('Speak: Closed')) as HTMLInputElement;
  expect(speak.checked).toBe(true);
  expect(screen.getByText(/^Not in force yet/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Back to what is saved' }));
  expect(speak.checked).toBe(false);
});

const place = (door = {}) => ({ sheet: null, differ: [], limits: {}, door, segments: null });
const set = <T,>(value: T) => ({ value, by: 'maren', at: Date.UTC(2026, 9, 1) });

test('the door says each rule with where it is from; what is chosen is kept, and saved at its place', async () => {
  answerRequests({
    'PUT /api/courses/course/rules': { change: 'c' },
    '/api/courses/course/rules': {
      ...{ sheets: [], series: [], sessions: [], exceptions: [], always: [], latest: null, on: '' },
      college: place({ accounts: { ...set('not'), by: null } }),
      course: place({ guests: set('knocks') }),
      names: { maren: 'Maren Oduya' },
    },
    '/api/drafts?key=door%2Fcourse%2Fcourse': { draft: { body: { late: 'not' }, at: 0 } },
  });
  inCourse({}, <DoorPage />);
  const row = async (name: string) => (await screen.findByRole('rowheader', { name })).closest('tr')!;
  expect((await row('Guests')).textContent).toContain('here, by Maren Oduya');
  expect((await row('The class list')).textContent).toContain('college');
  expect((await row('College accounts')).textContent).toContain('The college');
  // What was left half done is there, and said not to be in force.
  expect((await row('Who is late')).textContent).toContain('not in force yet');
  fireEvent.click(screen.getByRole('switch', { name: 'A teacher goes first' }));
  fireEvent.click(screen.getByRole('button', { name: /^As the college.*Guests/ }));
  fireEvent.click(screen.getByRole('button', { name: 'Save the door' }));
  const saved = () => asked.find((a) => a.path === '/api/courses/course/rules' && a.body);
  await waitFor(() => expect(saved()).toBeTruthy());
  expect(saved()!.body).toEqual({
    at: { layer: 'course' },
    door: { late: 'not', teacherFirst: false, guests: null },
  });
});

test('in the limits of a term Tab goes from line to line, and arrows from one value to the next', async () => {
  answerRequests({
    '/api/courses/course/rules': {
      ...{ sheets: [], series: [], sessions: [], exceptions: [], always: [], latest: null, on: '' },
      ...{ college: place(), course: place(), names: {} },
    },
  });
  inCourse({ series: [{ id: 'lecture', title: 'Lecture' }] as never }, <TermPage />);
  const [first, second, ...more] = await screen.findAllByRole('button', { name: /, The whole course: / });
  expect([first, second, ...more].map((cell) => cell!.tabIndex)).toEqual([0, -1, ...more.map(() => -1)]);
  first!.focus();
  const press = (key: string) => {
    fireEvent.keyDown(document.activeElement!, { key });
    return document.activeElement;
  };
  expect(press('ArrowLeft')).toBe(first);
  expect(press('ArrowRight')).toBe(second);
  expect(press('ArrowUp')).toBe(second);
  const below = press('ArrowDown');
  expect(below?.getAttribute('aria-label')).toContain(', Lecture: ');
  expect(press('ArrowUp')).toBe(second);
  expect(press('ArrowLeft')).toBe(first);
});
