import fc from 'fast-check';
import { Capability, Permission, type Limits } from '../api/limits';
import {
  CAPABILITY_WORDS,
  changeWords,
  COLLEGE_LIMITS,
  HUSH_LIMITS,
  limitsWords,
  resolve,
  type Layer,
} from './index';

test('the last layer that says something decides, and is named with who and when', () => {
  const layers: Layer[] = [
    { name: 'course', values: { speak: 'closed', draw: 'open' }, by: 'Maren', at: 1 },
    { name: 'live', values: { speak: 'open' }, by: 'Teo', at: 2 },
  ];
  expect(resolve(layers, 'speak')).toEqual({ state: 'open', because: { name: 'live', by: 'Teo', at: 2 } });
  expect(resolve(layers, 'draw').because.name).toBe('course');
  expect(resolve(layers, 'camera')).toEqual({ state: COLLEGE_LIMITS.camera, because: { name: 'college' } });
});

const anyLayer = fc.record({
  name: fc.constantFrom('course' as const, 'session' as const, 'live' as const),
  values: fc.dictionary(
    fc.constantFrom(...Capability.options),
    fc.constantFrom(...Permission.options),
  ) as fc.Arbitrary<Partial<Limits>>,
});

test('a layer that says nothing of a capability changes nothing of it', () => {
  fc.assert(
    fc.property(fc.array(anyLayer), fc.constantFrom(...Capability.options), (layers, capability) => {
      const silent: Layer = { name: 'live', values: {} };
      expect(resolve([...layers, silent], capability)).toEqual(resolve(layers, capability));
    }),
  );
});

test('hush closes everything but a word to a teacher', () => {
  for (const c of Capability.options)
    expect(HUSH_LIMITS[c]).toBe(c === 'writeToTeachers' ? undefined : 'closed');
});

test('every capability has its words, and the summary names each once', () => {
  const named = limitsWords(COLLEGE_LIMITS).flatMap((l) => l.doings);
  expect(named).toHaveLength(Capability.options.length);
  for (const c of Capability.options) expect(CAPABILITY_WORDS[c].label.length).toBeGreaterThan(3);
  expect(changeWords('camera', 'open')).toBe('Cameras are now open.');
});
