import type { Begins, Ends } from '../../settings/index';
import type { Kept } from '../../recording/space';

export interface RecordingState {
  state: 'off' | 'on' | 'paused';
  /** What there is room for on the disk. */
  kept: Kept;
  /** It was paused because there was room for nothing, and goes on where there is again. */
  heldUp: boolean;
  /** Whether the class is to be recorded, and from when until when. */
  automatic: boolean;
  begins: Begins;
  ends: Ends;
  /** Whether the cameras of students are in it while they have the floor. */
  cameras: boolean;
  /** Whether what is said at tables is kept, each table's by itself. */
  tables: boolean;
  /** Whether any of the class was recorded. */
  began: boolean;
  /** The planned end has ended it: it is not ended again. */
  over: boolean;
  /** Who said whether they are to be in it. Known to each of themselves, and to those who teach. */
  answers: Readonly<Record<string, 'agreed' | 'withheld'>>;
}
