import { ana, ben, lecture, maren } from '../../testing/index';
import { snapshotFor } from '../kernel/audience';
import { positionIn } from './index';
import { filmCommands } from './schema';
import { OPEN_AT_TABLES } from '../../limits/index';

const show = { type: 'showFilm', material: 'film1', name: 'Spring tide.webm' } as const;

test('a film plays for all from where it is set going, stands where it is held, and late ones are at the same place', () => {
  const room = lecture();
  expect(room.refusal(maren, { type: 'playFilm', playing: true, position: 0 })?.code).toBe('no-film');
  room.do(maren, show);
  expect(room.state.stage.front.class).toBe('film');
  room.do(maren, { type: 'playFilm', playing: true, position: 5000.4 });
  const { at } = room.events.at(-1)!;
  const on = () => snapshotFor(room.state, ben).film.on!;
  expect(positionIn(on(), at)).toBe(5000);
  expect(positionIn(on(), at + 2500)).toBe(7500);
  // A page whose clock is a little behind is not before its beginning.
  expect(positionIn(on(), at - 40)).toBe(5000);
  room.do(maren, { type: 'playFilm', playing: false, position: 9000 });
  expect(positionIn(on(), at + 99_999)).toBe(9000);
  const { length } = room.events;
  room.do(maren, show);
  expect(room.events).toHaveLength(length);
  room.do(maren, { type: 'putFilmAway' });
  expect(room.state.film.on).toBeNull();
  expect(room.state.stage.front.class).toBe('picture');
});

test('an address is opened for all, as it is sent, and nothing that is no address of the web', () => {
  const url = (typed: string) =>
    filmCommands.openCard.safeParse({ type: 'openCard', url: typed, title: 'T' });
  expect(url('https://tides.example/\u202etoday').data?.url).toBe('https://tides.example/%E2%80%AEtoday');
  for (const none of ['javascript:alert(1)', 'data:text/html,x', 'file:///etc/passwd', 'tides'])
    expect(url(none).success).toBe(false);
  const room = lecture();
  room.do(maren, { type: 'openCard', url: 'https://tides.example/today', title: 'Today’s tides' });
  expect(snapshotFor(room.state, ana).film.card?.title).toBe('Today’s tides');
  room.do(maren, { type: 'putCardAway' });
  expect(room.state.film.card).toBeNull();
});

test('who is at a table watches nothing of the class, and a class that goes to its tables has put it away', () => {
  const room = lecture();
  room.do(maren, show);
  room.do(maren, {
    ...{ type: 'layTables', seconds: null, limits: OPEN_AT_TABLES },
    tables: [{ name: 'Table 1', members: ['ana', 'ben'] }],
  });
  expect(room.state.film.on).toBeNull();
  room.do(maren, show);
  expect(snapshotFor(room.state, ana).film.on).toBeNull();
  room.do(maren, { type: 'dismiss' });
  expect(room.state.film).toEqual({ on: null, card: null });
});
