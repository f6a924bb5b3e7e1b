import type { BellState } from '../bell/state';
import type { BoardState } from '../board/state';
import type { CaptionsState } from '../captions/state';
import type { DeskState } from '../desk/state';
import type { DoorState } from '../door/state';
import type { FilmState } from '../film/state';
import type { FloorState } from '../floor/state';
import type { LimitsState } from '../limits/state';
import type { PickState } from '../pick/state';
import type { PresenceState } from '../presence/state';
import type { QuestionsState } from '../questions/state';
import type { RecordingState } from '../recording/state';
import type { RunSheetState } from '../runSheet/state';
import type { SignsState } from '../signs/state';
import type { SlidesState } from '../slides/state';
import type { StageState } from '../stage/state';
import type { TablesState } from '../tables/state';
import type { TalkState } from '../talk/state';
import type { TimerState } from '../timer/state';
import type { WithUsState } from '../withUs/state';
import type { Place } from './schema';

/** Each concern's part of a room, under the concern's name. Plain data: it is sent to pages as it is. */
export interface Parts {
  bell: BellState;
  presence: PresenceState;
  door: DoorState;
  limits: LimitsState;
  floor: FloorState;
  desk: DeskState;
  stage: StageState;
  talk: TalkState;
  board: BoardState;
  recording: RecordingState;
  runSheet: RunSheetState;
  signs: SignsState;
  timer: TimerState;
  questions: QuestionsState;
  pick: PickState;
  withUs: WithUsState;
  slides: SlidesState;
  tables: TablesState;
  film: FilmState;
  captions: CaptionsState;
}

/** A room as its events have made it. The same on the server, in every page and in a replay. */
export interface RoomState extends Parts {
  /** The number of the last event. */
  seq: number;
  /** What changed last, in words for students; where it is one place's alone, which. */
  notice: { seq: number; text: string; place?: Place } | null;
}
