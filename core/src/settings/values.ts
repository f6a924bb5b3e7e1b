import type { LayerName, Section, Settings } from './schema';

/** Where a value can be set, from the widest to the narrowest: a narrower place overrules a wider one. */
export const LAYERS = [
  'college',
  'course',
  'series',
  'session',
  'cue',
  'time',
  'live',
  'table',
  'hush',
  'person',
] as const;

/** A value, and who set it when. `by` is always a member's id; null is the college itself, or nobody known any more. */
export interface SetValue<T> {
  value: T;
  by: string | null;
  /** Instant, ms. */
  at: number | null;
}

/** How somebody comes in. */
export const ENTRIES = ['straight', 'knocks', 'not'] as const;

/** What becomes of writing at a time around the class: as in class; to those who teach alone; nothing. */
export const AROUND = ['asInClass', 'teachers', 'closed'] as const;
export type Around = (typeof AROUND)[number];

/** What a recording can be without. */
export const LEAVABLE = [
  ...(['teachersVoices', 'teachersCameras', 'screens', 'studentsVoices'] as const),
  ...(['board', 'writing', 'notes', 'captions', 'names'] as const),
] as const;

export const noSettings = (): Settings => ({
  ...{ sheet: {}, limits: {}, writing: {}, door: {} },
  ...{ recording: {}, roll: {}, after: {}, runSheet: {} },
});

/** The settings of one place, by its name. */
export interface Layer {
  name: LayerName;
  settings: Settings;
}

/** A value in force, and which layer set it. */
export interface InForce<T> {
  value: T;
  because: { layer: LayerName; by: string | null; at: number | null };
}

type ValueOf<S extends Section, K extends keyof Settings[S]> =
  NonNullable<Settings[S][K]> extends SetValue<infer T> ? T : never;

/** The value in force: the narrowest layer that says something decides; null where none does. */
export function inForce<S extends Section, K extends keyof Settings[S]>(
  layers: readonly Layer[],
  section: S,
  key: K,
): InForce<ValueOf<S, K>> | null {
  for (let i = layers.length - 1; i >= 0; i--) {
    const { name, settings } = layers[i]!;
    const found = settings[section][key] as SetValue<ValueOf<S, K>> | undefined;
    if (found) return { value: found.value, because: { layer: name, by: found.by, at: found.at } };
  }
  return null;
}

/** Every value of a section in force, and what holds of it where no layer says anything. */
export function allInForce<S extends Section, D extends { [K in keyof Settings[S]]-?: ValueOf<S, K> }>(
  layers: readonly Layer[],
  section: S,
  otherwise: D,
): D {
  const keys = Object.keys(otherwise) as (keyof Settings[S] & keyof D)[];
  return Object.fromEntries(
    keys.map((key) => [key, inForce(layers, section, key)?.value ?? otherwise[key]]),
  ) as D;
}

/**
 * Settings with some values set anew. What is already so keeps who said it first; an `undefined` value takes back what
 * was said here, so that the wider place holds again.
 */
export function withValues<S extends Section>(
  settings: Settings,
  section: S,
  values: { readonly [K in keyof Settings[S]]?: ValueOf<S, K> | undefined },
  by: string | null,
  at: number,
): Settings {
  const next = { ...settings[section] } as Record<string, SetValue<unknown>>;
  for (const [key, value] of Object.entries(values)) {
    if (value === undefined) delete next[key];
    else if (JSON.stringify(next[key]?.value) !== JSON.stringify(value)) next[key] = { value, by, at };
  }
  return { ...settings, [section]: next };
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/**
 * Settings with a change of them taken back, value by value: what stands as the change left it is again as it was before
 * it, what was set otherwise since stays. `left` is how many values that were.
 */
export function takenBack(
  now: Settings,
  before: Settings,
  after: Settings,
): { settings: Settings; left: number } {
  const settings = structuredClone(now) as Record<Section, Record<string, unknown>>;
  let left = 0;
  for (const section of Object.keys(now) as Section[]) {
    const was: Record<string, unknown> = before[section];
    const became: Record<string, unknown> = after[section];
    const own = settings[section];
    for (const key of new Set([...Object.keys(was), ...Object.keys(became)])) {
      if (same(was[key], became[key])) continue;
      if (!same(own[key], became[key])) left++;
      else if (was[key] === undefined) delete own[key];
      else own[key] = was[key];
    }
  }
  return { settings: settings as unknown as Settings, left };
}
