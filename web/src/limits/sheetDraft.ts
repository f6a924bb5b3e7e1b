import type { SegmentInput } from '@nimble-bell/core/api';
import type { RuleSheet } from '@nimble-bell/core/limits';
import type { Segment } from '@nimble-bell/core/settings';

/** A segment as it is typed: its minutes may be emptied meanwhile. */
export interface SegmentDraft extends Omit<SegmentInput, 'minutes'> {
  key: number;
  minutes: number | '';
}

let keys = 0;
export const draftOf = ({
  title,
  minutes,
  sheet,
  recording,
  timed,
  note,
}: Segment | SegmentDraft): SegmentDraft => ({
  ...{ key: ++keys, title, minutes, sheet, recording, note },
  ...(timed ? { timed } : {}),
});

export const blank = (minutes: number): SegmentDraft => ({
  ...{ key: ++keys, title: '', minutes, sheet: null, recording: null, note: '' },
});

/** A segment under another title: one called as a sheet goes by that sheet, unless another was chosen for it. */
export function titled(
  segment: SegmentDraft,
  title: string,
  sheets: readonly Pick<RuleSheet, 'id' | 'name'>[],
): SegmentDraft {
  const called = (name: string) =>
    sheets.find((s) => s.name.toLowerCase() === name.trim().toLowerCase())?.id ?? null;
  const followed = segment.sheet === null || segment.sheet === called(segment.title);
  return { ...segment, title, sheet: followed ? called(title) : segment.sheet };
}

export const wholeOf = (segments: readonly SegmentDraft[]): number =>
  segments.reduce((sum, s) => sum + (s.minutes || 0), 0);

export const toSegments = (segments: readonly SegmentDraft[]): SegmentInput[] =>
  segments.map(({ key: _, minutes, ...s }) => ({ ...s, minutes: minutes || 0 }));

/** The border between a segment and the next is moved by so many minutes: what one gains the other loses, each keeps one. */
export function stretched(segments: readonly SegmentDraft[], border: number, by: number): SegmentDraft[] {
  const [a, b] = [segments[border]!, segments[border + 1]!];
  const [left, right] = [a.minutes || 0, b.minutes || 0];
  const step = Math.max(1 - left, Math.min(right - 1, by));
  if (left < 1 || right < 1) return [...segments];
  return segments.map((s, i) =>
    i === border ? { ...s, minutes: left + step } : i === border + 1 ? { ...s, minutes: right - step } : s,
  );
}
