import { beginsWords, endsWords } from '@nimble-bell/core/recording';
import { Begins, Ends } from '@nimble-bell/core/settings';

/** Segments that a recording is often begun with. */
const SEGMENTS = [2, 3, 4, 5, 6];

const choice = (begins: Begins) => ({ value: String(begins), label: beginsWords(begins) });

/** With what a recording begins, as it is chosen. */
export const BEGINS = [...(['ringIn', 'start', ...SEGMENTS, 'hand'] as const).map(choice)];
export const beginsOf = (value: string): Begins => Begins.parse(/^\d+$/.test(value) ? Number(value) : value);

/** With what it ends. */
export const ENDS = Ends.options.map((value) => ({ value, label: endsWords(value) }));
