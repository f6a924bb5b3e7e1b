import fc from 'fast-check';
import { CAPABILITY_IDS, rowOf, type Capability, type Permission } from '../../limits/capabilities';
import { SHIPPED_SHEETS, underSheet, type SomeLimits } from '../../limits/index';
import { noSettings, withValues, type LayerName, type Settings } from '../../settings/index';
import { ana, ben, lecture, maren, many } from '../../testing/index';
import { exceptionEvents, may } from '../index';

/** What was said of one capability somewhere: its state, and by whom. */
type Word = { state: Permission; by: string | null };
type Said = Partial<Record<Capability, Word>>;

/** The rules as one would tell them, slowly: who said what where, and the narrowest word counts. */
class Oracle {
  places: Record<'course' | 'series' | 'session' | 'cue' | 'live', Said> = {
    ...{ course: {}, series: {}, session: {} },
    ...{ cue: {}, live: {} },
  };
  exceptions: Record<string, Said> = { ana: {}, ben: {} };
  lent: { capability: Capability; before: Word | undefined } | null = null;
  hushed: string | null = null;
  floor: string | null = null;

  word(capability: Capability): { state: Permission; layer: LayerName; by: string | null } {
    if (this.hushed && rowOf(capability).hush) return { state: 'closed', layer: 'hush', by: this.hushed };
    for (const place of ['live', 'cue', 'session', 'series', 'course'] as const) {
      const said = this.places[place][capability];
      if (said) return { state: said.state, layer: place, by: said.by };
    }
    return { state: rowOf(capability).college, layer: 'college', by: null };
  }

  verdict(member: string, capability: Capability) {
    const hushed = this.hushed && rowOf(capability).hush;
    const own = hushed ? undefined : this.exceptions[member]![capability];
    const word = own ? { ...own, layer: 'person' as const } : this.word(capability);
    if (this.floor === member && !hushed && (word.state === 'byHand' || capability === 'speak'))
      return { allowed: true, state: word.state, layer: 'floor', by: null };
    return { allowed: word.state === 'open', ...word };
  }

  giveBack() {
    if (!this.lent) return;
    const { capability, before } = this.lent;
    delete this.places.live[capability];
    if (before) this.places.live[capability] = before;
    this.lent = null;
  }
}

const capability = fc.constantFrom(...CAPABILITY_IDS);
/** A capability in a state that makes sense of it. */
const said = fc.constantFrom(
  ...CAPABILITY_IDS.flatMap((c) => rowOf(c).states.map((s) => ({ capability: c, state: s }))),
);
const some = fc
  .array(said, { maxLength: 4 })
  .map((all): SomeLimits => Object.fromEntries(all.map((s) => [s.capability, s.state])));
const place = fc.constantFrom('course' as const, 'series' as const, 'session' as const);
const person = fc.constantFrom('ana', 'ben');
const at = <T extends string>(type: T) => fc.record({ type: fc.constant(type) });
const act = fc.oneof(
  fc.record({ type: fc.constant('settings' as const), place, some }),
  fc.record({ type: fc.constant('sheet' as const), place, sheet: fc.constantFrom(...SHIPPED_SHEETS) }),
  fc.record({ type: fc.constant('cue' as const), some }),
  said.map((s) => ({ type: 'live' as const, ...s })),
  fc.record({ type: fc.constant('lend' as const), capability }),
  fc.tuple(person, said).map(([p, s]) => ({ type: 'except' as const, person: p, ...s })),
  fc.record({ type: fc.constant('unexcept' as const), person, capability }),
  fc.record({ type: fc.constant('floor' as const), person }),
  ...[at('giveBack' as const), at('hush' as const), at('lift' as const), at('takeFloor' as const)],
);
type Act = typeof act extends fc.Arbitrary<infer T> ? T : never;

/** One act, in the room and by the oracle. */
function step(room: ReturnType<typeof lecture>, oracle: Oracle, wanted: Map<string, Settings>, what: Act) {
  const { live } = oracle.places;
  const settle = (name: 'course' | 'series' | 'session', settings: Settings) => {
    wanted.set(name, settings);
    room.happen({ type: 'settingsChanged', by: 'maren', layer: name, settings });
    oracle.places[name] = Object.fromEntries(
      Object.entries(settings.limits).map(([c, v]) => [c, { state: v.value, by: v.by }]),
    );
  };
  switch (what.type) {
    case 'settings':
      return settle(what.place, withValues(wanted.get(what.place)!, 'limits', what.some, 'maren', room.now));
    case 'sheet':
      return settle(what.place, underSheet(wanted.get(what.place)!, what.sheet, 'maren', room.now));
    case 'cue': {
      const segment = { title: 'Part', minutes: 5, limits: what.some, recording: null };
      room.happen({ type: 'cued', by: 'maren', index: 0, segment, changes: {} });
      oracle.places.cue = {};
      for (const [c, said] of Object.entries(what.some) as [Capability, Permission][]) {
        oracle.places.cue[c] = { state: said, by: 'maren' };
        delete live[c];
        if (oracle.lent?.capability === c) oracle.lent = null;
      }
      return;
    }
    case 'live': {
      const before = oracle.word(what.capability);
      room.do(maren, { type: 'setLimit', capability: what.capability, state: what.state });
      if (oracle.hushed || before.state === what.state) return;
      // Who said the same in class first stays who said it.
      live[what.capability] = { state: what.state, by: 'maren' };
      if (oracle.lent?.capability === what.capability) oracle.lent = null;
      return;
    }
    case 'lend': {
      room.do(maren, { type: 'openFor', capability: what.capability, seconds: 600 });
      if (oracle.hushed || oracle.word(what.capability).state === 'open') return;
      oracle.giveBack();
      oracle.lent = { capability: what.capability, before: live[what.capability] };
      live[what.capability] = { state: 'open', by: 'maren' };
      return;
    }
    case 'except':
    case 'unexcept': {
      if (what.type === 'unexcept') delete oracle.exceptions[what.person]![what.capability];
      else oracle.exceptions[what.person]![what.capability] = { state: what.state, by: 'maren' };
      const all = Object.entries(oracle.exceptions).flatMap(([member, own]) =>
        Object.entries(own).map(([c, said]) => ({
          ...{ member, capability: c as Capability, state: said.state },
          ...{ until: null, by: said.by },
        })),
      );
      room.happen(...exceptionEvents(room.state, all, room.now));
      return;
    }
    case 'floor':
      room.do(maren, { type: 'giveFloor', member: what.person });
      if (!oracle.hushed) oracle.floor = what.person;
      return;
    case 'takeFloor':
      room.do(maren, { type: 'takeFloor' });
      oracle.floor = null;
      return;
    case 'giveBack':
      room.do(maren, { type: 'closeAgain' });
      return oracle.giveBack();
    case 'hush':
      room.do(maren, { type: 'hush' });
      oracle.hushed ??= 'maren';
      return;
    case 'lift':
      room.do(maren, { type: 'lift' });
      oracle.hushed = null;
  }
}

const layered = () => {
  const room = lecture();
  const empty = { name: 'course', settings: noSettings() } as const;
  room.state = {
    ...room.state,
    limits: {
      ...room.state.limits,
      layers: [empty, { ...empty, name: 'series' }, { ...empty, name: 'session' }],
    },
  };
  return room;
};

test('classes: whatever is set, cued, lent, excepted, hushed and given, everybody may just what the plain rules say, by whom', () => {
  fc.assert(
    fc.property(fc.array(act, { minLength: 1, maxLength: 12 }), (acts) => {
      const room = layered();
      const oracle = new Oracle();
      const settings = new Map(['course', 'series', 'session'].map((name) => [name, noSettings()]));
      for (const what of acts) step(room, oracle, settings, what);
      const told = [ana, ben].flatMap((who) =>
        CAPABILITY_IDS.map((c) => {
          const { allowed, state: said, because } = may(room.state, who, c);
          const found = { allowed, state: said, layer: because.layer, by: because.by };
          return [
            { c, ...found },
            { c, ...oracle.verdict(who.member, c) },
          ] as const;
        }),
      );
      expect(told.map(([found]) => found)).toEqual(told.map(([, plain]) => plain));
    }),
    { numRuns: many(10_000) },
  );
});
