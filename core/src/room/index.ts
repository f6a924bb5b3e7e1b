export * from './kernel/index';
export * from './consequences';
export * from './may';
export * from './proof';
export { hiddenCameras, isTold, peopleFor, SEEING, seers, sees } from './sight';
export { givenSigns, SIGN_WORDS, signsWords, type GivenSigns } from './signs/index';
export { SIGNS } from './signs/signs';
export type { Sign } from './signs/schema';
export * from './words';
export { ranFor, shownOf } from './timer/index';
export type { Timer } from './timer/state';
export { isAsked, isOpen, questionOn, roundOf } from './questions/index';
export type { AskedQuestion, Given, Round } from './questions/state';
export { QUIET_MS, quietIn, quietSince } from './withUs/index';
export type { Deed, TakesPart } from './withUs/state';
export { pickable } from './pick/index';
export type { Picked } from './pick/state';
export { devicesOf, entering, isHere, knowing, onDevices, type Comer } from './presence/index';
export { frontOf, presentersAt } from './stage/index';
export { FRONTS, type Front } from './stage/state';
export { leafsTo, pagesFor, slidesAt } from './slides/index';
export {
  MOST_ZOOM,
  WHOLE_PAGE,
  type Deck,
  type Frame,
  type Leafing,
  type PageMark,
  type Shown,
} from './slides/state';
export { fewest, repeatedIn, seatedByLot } from './tables/seating';
export { isSeated, placeFor, tableOf, tablesHad } from './tables/index';
export { MOST_FILES, MOST_TABLES, type Laid, type Table } from './tables/state';
export { withLine } from './captions/index';
export { LINES_AT_HAND, LONGEST_LINE, type CaptionLine } from './captions/state';
export { positionIn } from './film/index';
export type { Card, Film } from './film/state';
export { groundOf, onBoard, readsNotes, sideOf, sidesOf } from './board/index';
export { keptOn, moved, pointsOf } from './board/geometry';
export { boardsAfter, type KeptBoard } from './board/kept';
export { GROUNDS, MOST_SIDES, SHAPES, type Ground } from './board/state';
export { MOST_LETTERS } from './board/jpeg';
export { isWithheld, narrowedBy } from './recording/index';
export { TALK_AT_ONCE, writingNeeds } from './talk/index';
export { ABANDONED_MS, arriving, atDoor, closesAt, goneFromDoor } from './door/index';
export type { Knock, Out } from './door/state';
export { Back } from './door/schema';
export { cueEvents, segmentEnds } from './runSheet/index';
export { takenBySegment, type Held, type Taken } from './runSheet/held';
export { proposals, type Left, type Proposal } from './runSheet/left';
export { MOST_SEGMENTS, type CuedSegment } from './runSheet/schema';
export type { HeldSegment, RunSheetState } from './runSheet/state';
export { exceptionEvents, type PersonalLimit } from './limits/exceptions';
export type { Exception, TableLimits } from './limits/state';
export type { Devices, Occupant } from './presence/state';
export type { Message } from './talk/state';
export type {
  BoardState,
  BoardStroke,
  Mark,
  OnBoard,
  PutPicture,
  PutShape,
  PutText,
  ShownWork,
} from './board/state';
export { Addressee } from './talk/schema';
export { BoardText, Picture, Shape, Stroke } from './board/schema';
export { PlannedTimes } from './bell/schema';
