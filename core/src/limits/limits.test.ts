import fc from 'fast-check';
import { noSettings, withValues, type Layer, type LayerName } from '../settings/index';
import {
  CAPABILITIES,
  Capability,
  capabilityOf,
  changeWords,
  COLLEGE_LIMITS,
  ladderOf,
  limitsWords,
  mayWords,
  Permission,
  resolve,
  rowOf,
  CAPABILITY_IDS,
  SomeLimits,
  TRACK_KINDS,
} from './index';

const layer = (name: LayerName, limits: SomeLimits, by: string | null = null, at = 0): Layer => ({
  name,
  settings: withValues(noSettings(), 'limits', limits, by, at),
});

test('the narrowest layer that says something decides, and is named with who and when', () => {
  const layers = [
    layer('course', { speak: 'closed', draw: 'open' }, 'maren', 1),
    layer('live', { speak: 'open' }, 'teo', 2),
  ];
  expect(resolve(layers, 'speak')).toEqual({ state: 'open', because: { layer: 'live', by: 'teo', at: 2 } });
  expect(resolve(layers, 'draw').because.layer).toBe('course');
  expect(resolve(layers, 'camera')).toEqual({
    state: COLLEGE_LIMITS.camera,
    because: { layer: 'college', by: null, at: null },
  });
});

const anyLimits = fc.dictionary(
  fc.constantFrom(...Capability.options),
  fc.constantFrom(...Permission.options),
) as fc.Arbitrary<SomeLimits>;
const anyLayer = fc
  .tuple(fc.constantFrom('course' as const, 'session' as const, 'live' as const), anyLimits)
  .map(([name, limits]) => layer(name, limits));

test('a layer that says nothing of a capability changes nothing of it', () => {
  fc.assert(
    fc.property(fc.array(anyLayer), fc.constantFrom(...Capability.options), (layers, capability) => {
      expect(resolve([...layers, layer('live', {})], capability)).toEqual(resolve(layers, capability));
    }),
  );
});

test('a stored state that makes no sense of its capability is closed', () => {
  expect(resolve([layer('course', { seeNames: 'byHand' })], 'seeNames').state).toBe('closed');
});

test('every value keeps who set it first: what is said again changes nothing, what is taken back is silent', () => {
  fc.assert(
    fc.property(anyLimits, anyLimits, (first, second) => {
      const once = withValues(noSettings(), 'limits', first, 'maren', 1);
      const both = withValues(once, 'limits', second, 'teo', 2);
      for (const c of Capability.options) {
        const said = both.limits[c];
        expect(said?.value).toBe(second[c] ?? first[c]);
        if (said) expect(said.by).toBe(second[c] && second[c] !== first[c] ? 'teo' : 'maren');
      }
      const silent = Object.fromEntries(Capability.options.map((c) => [c, undefined]));
      expect(withValues(both, 'limits', silent, 'teo', 3).limits).toEqual({});
    }),
  );
});

test('every capability has one row that makes sense, and each kind of media its own', () => {
  for (const c of Capability.options) {
    expect(rowOf(c).states).toContain(rowOf(c).college);
    expect(rowOf(c).label.length).toBeGreaterThan(3);
  }
  expect(new Set(TRACK_KINDS.map(capabilityOf)).size).toBe(TRACK_KINDS.length);
  expect(CAPABILITIES.writeToTeachers.hush).toBeNull();
  expect(SomeLimits.safeParse({ speak: 'open' }).success).toBe(true);
});

test('the summary names each capability that can be set, once', () => {
  expect(limitsWords(COLLEGE_LIMITS).flatMap((l) => l.doings)).toHaveLength(CAPABILITY_IDS.length);
  expect(changeWords('camera', 'open')).toBe('Cameras are now open.');
});

test('what one may do is said in a line, each thing once', () => {
  const words = mayWords({ ...COLLEGE_LIMITS, speak: 'byHand', camera: 'closed' });
  expect(words).toMatch(/By a raised hand: .*speaking/);
  expect(words).toMatch(/Closed: .*cameras/);
  for (const c of CAPABILITY_IDS)
    expect(words.toLowerCase().split(rowOf(c).doing.toLowerCase())).not.toHaveLength(1);
});

test('the ladder has every layer, the narrowest on top, and one in force: the one that resolve names', () => {
  const names = fc.subarray<LayerName>(['college', 'course', 'series', 'session', 'live', 'hush']);
  const some = fc.option(fc.constantFrom(...Permission.options), { nil: undefined });
  fc.assert(
    fc.property(names, fc.array(some, { minLength: 6, maxLength: 6 }), (own, says) => {
      const layers = own.map((name, i) => layer(name, says[i] ? { speak: says[i] } : {}, 'maren', i));
      const rungs = ladderOf(layers, 'speak');
      const { state, because } = resolve(layers, 'speak');
      expect(rungs.filter((r) => r.inForce)).toEqual([
        expect.objectContaining({ layer: because.layer, state, by: because.by }),
      ]);
      expect(rungs.at(-1)!.layer).toBe('college');
      expect(rungs.map((r) => r.layer).filter((l) => l !== 'college')).toEqual(
        own.filter((l) => l !== 'college').reverse(),
      );
    }),
  );
});
