import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { noPreferences } from '@nimble-bell/core/api';
import { PLAIN, setStyle } from '@nimble-bell/core/calendar';
import { answerRequests } from '../testing/answers';
import { freshSession, show } from '../testing/render';
import { keepUnsent, resetLine, sent, unheard } from './line';
import { forgetNotices, say } from './notices';
import { PLACES, placesAt } from './pages';
import { RibbonWalk } from './RibbonWalk';
import { Root } from './Root';
import { titleOf } from './title';

const me = { now: Date.now(), person: null, demo: false, preferences: noPreferences() };

afterEach(() => {
  act(() => {
    resetLine();
    forgetNotices();
  });
  setStyle(PLAIN);
});

test('an address goes through the places of the table, and every place that is a page has a title', () => {
  const titles = (address: string) => placesAt(address).map((p) => p.title);
  expect(titles('/course/x/plan/week')).toEqual([undefined, 'Plan', 'Week']);
  expect(titles('/in/abc')).toEqual([undefined, 'Your course']);
  expect(placesAt('/nowhere/at/all')).toEqual([]);
  const all = (places: typeof PLACES): typeof PLACES => places.flatMap((p) => [p, ...all(p.children ?? [])]);
  const untitled = all(PLACES).filter((p) => p.page && !p.title && !p.children);
  expect(untitled).toEqual([]);
  expect(titleOf('Week', 'TID-101')).toBe('Week – TID-101 – Nimble Bell');
  expect(titleOf(undefined, '')).toBe('Nimble Bell');
});

test('what is said stands in a region that was there before, once, and can be taken away', async () => {
  answerRequests({ '/api/me': me });
  show(
    <Root>
      <h1>A page</h1>
    </Root>,
  );
  const polite = document.querySelector('[aria-live=polite]')!;
  expect(polite.textContent).toBe('');
  act(() => {
    say('Kept.');
    say('Kept.');
  });
  expect(polite.textContent).toBe('Kept.×');
  fireEvent.click(screen.getByRole('button', { name: 'Take this away' }));
  expect(polite.textContent).toBe('');
  act(() => say('It could not be kept.', 'fault'));
  expect(document.querySelectorAll('[aria-live=assertive]')[1]!.textContent).toContain(
    'It could not be kept.',
  );
});

test('that the server is away is said until it is over, with what is not saved; try again sends it', async () => {
  answerRequests({ '/api/me': me });
  const again = jest.fn(async () => sent('one'));
  show(
    <Root>
      <h1>A page</h1>
    </Root>,
  );
  // It was heard from once: that it is away is said after that.
  await waitFor(() => expect(document.querySelector('[aria-live=polite]')).toBeTruthy());
  act(() => {
    unheard();
    keepUnsent('one', again);
    keepUnsent('one', again);
  });
  expect(screen.getByText(/1 change not saved yet\./)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await waitFor(() => expect(screen.queryByText(/not saved yet/)).toBeNull());
  expect(again).toHaveBeenCalledTimes(1);
});

test('the ribbon is walked by arrows: one stop, the next session first, words for each', () => {
  const at = (n: number) => ({
    ...freshSession(),
    ...{ id: `s${n}`, startsAt: Date.UTC(2026, 9, 6 + n, 21), endsAt: Date.UTC(2026, 9, 6 + n, 22) },
  });
  const sessions = [at(0), at(1), at(2)];
  show(
    <RibbonWalk course="c" zone="UTC" sessions={sessions} findings={new Map([['s2', 'clashes']])} from={1} />,
  );
  const links = screen.getAllByRole('link');
  expect(links.map((l) => l.tabIndex)).toEqual([-1, 0, -1]);
  act(() => links[1]!.focus());
  fireEvent.keyDown(links[1]!, { key: 'ArrowRight' });
  expect(document.activeElement).toBe(links[2]);
  expect(links[2]!.textContent).toMatch(/Thu 8 Oct, 21:00: .*\. clashes$/);
  fireEvent.keyDown(links[2]!, { key: 'ArrowRight' });
  fireEvent.keyDown(links[2]!, { key: 'Home' });
  expect(document.activeElement).toBe(links[0]);
  expect(links.map((l) => l.tabIndex)).toEqual([0, -1, -1]);
});
