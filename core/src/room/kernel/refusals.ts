/** Why something is not done: a code for programs, a sentence for the person. */
export interface Refusal {
  code: RefusalCode;
  message: string;
}

/** Every refusal of the room. Where the sentence depends on what is closed, and by whom, it is made for the case. */
const SENTENCES = {
  absent: 'You are not in the room.',
  dismissed: 'The class has been dismissed.',
  'teachers-only': 'Only a teacher can do this.',
  'not-live': 'Ring in first.',
  hushed: 'The room is hushed. Lift the hush first: it brings back what was before.',
  'hushed-now': 'The room is hushed for a moment.',
  'not-here': 'This person is not in the room.',
  'never-here': 'This person has not been in the room.',
  teaches: 'Teachers speak without being given the floor.',
  'no-floor': 'Speaking is closed to them. Give them the floor.',
  self: 'This would only reach yourself.',
  locked: 'The door is locked. Nobody else comes in for now.',
  'put-out': 'A teacher does not let you into this session.',
  'not-let-in': 'Nobody who comes this way is let into this session.',
  'teaches-here': 'Who teaches here is not put out.',
  'name-taken': 'Somebody who teaches here is called that. Choose another name.',
  'own-name': 'Whoever teaches is called as they say themselves.',
  taken: 'Somebody is presenting. You can present when they stop.',
  closed: 'This is closed.',
  'no-sense': 'This state makes no sense here.',
  'no-segment': 'The run sheet has no such part any more.',
  'not-recording': 'Nothing is being recorded.',
  'not-recorded': 'The plan says that this class is not recorded.',
  'no-room': 'The disk is full. The recording goes on by itself where there is room again.',
  'no-timer': 'No timer is on.',
  'no-longer': 'A timer runs for four hours at most.',
  'nothing-asked': 'Nothing is being asked.',
  'not-asked': 'Students are asked. Whoever teaches or watches does not answer.',
  'too-late': 'This question is not open any more.',
  'no-answer': 'This is no answer to the question.',
  'nobody-here': 'No student is here who could be asked.',
  'nobody-else': 'Nobody else is here who could be asked.',
  'self-over': 'You teach here already.',
  'not-teaching': 'Only somebody who teaches here can go on.',
  'call-to-class': 'Only what is written to the class is put over the stage.',
  'no-message': 'There is no such message.',
  'no-slides': 'No pages are shown.',
  'no-page': 'There is no such page.',
  'page-turned': 'The page was turned.',
  'tables-laid': 'The class is at tables. Call everybody back first.',
  'seated-twice': 'Somebody would sit at two tables.',
  'no-tables': 'The class is together: there are no tables.',
  'no-table': 'There is no such table.',
  'no-seat': 'Whoever teaches or watches has no seat at a table.',
  stays: 'A teacher says who sits where.',
  'at-no-table': 'You are at no table.',
  'no-film': 'No film is shown.',
  'said-once': 'This file was sent already.',
  'too-many': 'That was too much at once. Wait a moment, then go on.',
  away: 'The server cannot write anything down for the moment. Try again in a moment.',
  elsewhere: 'This room is held by another server. You are taken there.',
  unknown: 'This command is not known.',
} as const;
export type RefusalCode = keyof typeof SENTENCES;

export const refuse = (code: RefusalCode, message: string = SENTENCES[code]): Refusal => ({ code, message });
