import type { RecordingInfo } from '@nimble-bell/core/api';
import { lengthWords } from '@nimble-bell/core/calendar';

export { lengthWords };

/** The same to the millisecond: "4:07.5". */
export function momentWords(ms: number): string {
  const rest = ms % 1000;
  const fraction = rest ? `.${String(rest).padStart(3, '0').replace(/0+$/, '')}` : '';
  return lengthWords(ms - rest) + fraction;
}

export function preparingWords({ state, progress }: Pick<RecordingInfo, 'state' | 'progress'>): string {
  if (state === 'running') return 'Being recorded now';
  if (state === 'expired') return 'It was kept until its date, and is gone';
  if (state === 'failed') return 'It could not be prepared; it is tried again';
  return `Being prepared, ${Math.round(100 * progress)} %`;
}

const LENGTH = /^(?:(\d{1,2}):)?(\d{1,3}):([0-5]?\d(?:\.\d{1,3})?)$/;

/** Milliseconds of "4:07", "1:02:05" or "4:07.5"; null where it is none. */
export function lengthRead(text: string): number | null {
  const found = LENGTH.exec(text.trim());
  if (!found) return null;
  const [, h = '0', m, s] = found;
  return Math.round(((Number(h) * 60 + Number(m)) * 60 + Number(s)) * 1000);
}
