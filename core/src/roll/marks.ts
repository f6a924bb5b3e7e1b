import type { RollLine } from './index';

/** What a roll says of somebody: by the rules, or as a teacher corrected it. */
export const MARKS = ['present', 'late', 'early', 'absent', 'excused'] as const;
export type Mark = (typeof MARKS)[number];

export const MARK_WORDS: Record<Mark, string> = {
  present: 'present',
  late: 'late',
  early: 'left early',
  absent: 'absent',
  excused: 'excused',
};

/** As the rules make it of when somebody was there; who was there too short was not. */
export function computedMark({
  state,
  short,
  late,
  leftEarly,
}: Pick<RollLine, 'state' | 'short' | 'late' | 'leftEarly'>): Mark {
  if (state === 'absent' || short) return 'absent';
  return late ? 'late' : leftEarly ? 'early' : 'present';
}

/** As it counts: a teacher's word stands above the rules. */
export const markOf = (
  line: Pick<RollLine, 'state' | 'short' | 'late' | 'leftEarly'> & { corrected?: { mark: Mark } | null },
): Mark => line.corrected?.mark ?? computedMark(line);

export const wasThere = (mark: Mark): boolean => mark !== 'absent' && mark !== 'excused';
