import type { TakenPart } from '@nimble-bell/core/after';
import { countWords } from '@nimble-bell/core/calendar';

/** "2.5" of minutes that are heard. */
export const minutesWords = (ms: number): string => String(Math.round(ms / 6000) / 10);

/** What somebody took part, in words. */
export const partWords = ({ spokenMs, written, hands, answers }: TakenPart): string =>
  [
    `spoke ${minutesWords(spokenMs)} min`,
    `wrote ${countWords(written, 'line')}`,
    `raised a hand ${countWords(hands, 'time')}`,
    `answered ${countWords(answers, 'question')}`,
  ].join(', ');
