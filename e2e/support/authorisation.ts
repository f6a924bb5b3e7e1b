import type { CommandType } from '@nimble-bell/core/room';

/** Who asks: nobody, a student of another course, a student, the assistant, the teacher, another teacher. */
export const ASKERS = ['nobody', 'elsewhere', 'student', 'assistant', 'teacher', 'stranger'] as const;
export type Asker = (typeof ASKERS)[number];

type Answers = Record<Asker, number>;
const answers = (...codes: [number, number, number, number, number, number]): Answers =>
  Object.fromEntries(ASKERS.map((asker, i) => [asker, codes[i]!])) as Answers;

const EVERYONE = answers(200, 200, 200, 200, 200, 200);
const MEMBERS = answers(401, 403, 200, 200, 200, 403);
const THOSE_WHO_TEACH = answers(401, 403, 403, 200, 200, 403);
/** A write is asked with a body that cannot be meant: 422 says that its right was given. */
const THE_TEACHER = answers(401, 403, 403, 403, 422, 403);
const THE_TEACHER_AND_GONE = answers(401, 403, 403, 403, 404, 403);
const TEACHING = answers(401, 403, 403, 422, 422, 403);
const BY_LINK = answers(401, 422, 422, 403, 403, 403);
const STAFF = answers(401, 403, 403, 422, 422, 422);

const ANY_STAFF = answers(401, 403, 403, 200, 200, 200);
/** Asked of a thing that is not there: 404 says that the right was given. */
const STAFF_AND_GONE = answers(401, 403, 403, 404, 404, 404);

/** Every route and what it answers to each. The server's own test compares this list with the routes it has. */
export const ROUTES: Record<string, Answers> = {
  'GET /api/health': EVERYONE,
  // By the link in a letter: read it leads to the page, posted without a known one it is refused.
  'GET /api/letters-off/:code/:topic': EVERYONE,
  'POST /api/letters-off/:code/:topic': answers(401, 401, 401, 401, 401, 401),
  'GET /api/me': EVERYONE,
  'GET /api/demo': EVERYONE,
  'POST /api/sign-in': answers(401, 401, 401, 401, 401, 401),
  'GET /api/courses': answers(401, 403, 403, 200, 200, 200),
  'POST /api/courses': STAFF,
  'GET /api/courses/:course': THOSE_WHO_TEACH,
  'PUT /api/courses/:course/settings': THE_TEACHER,
  'GET /api/courses/:course/pulse': THOSE_WHO_TEACH,
  'GET /api/courses/:course/traces': answers(401, 403, 403, 403, 200, 403),
  'POST /api/courses/:course/move': THE_TEACHER,
  'PUT /api/courses/:course/archived': THE_TEACHER,
  // Asked of a course that was taught: what must stay, stays.
  'DELETE /api/courses/:course': answers(401, 403, 403, 403, 409, 403),
  'POST /api/courses/:course/plan/preview': THE_TEACHER,
  'POST /api/courses/:course/plan/letters': THE_TEACHER,
  'POST /api/courses/:course/plan': THE_TEACHER,
  'POST /api/courses/:course/plan/undo': THE_TEACHER,
  'GET /api/courses/:course/plan/history': THOSE_WHO_TEACH,
  'POST /api/courses/:course/fixes': THE_TEACHER,
  'GET /api/sessions/:id/make-ups': answers(401, 403, 403, 403, 200, 403),
  'PUT /api/sessions/:id/listed': THE_TEACHER,
  'PUT /api/sessions/:id/posted': THE_TEACHER,
  // Asked of a student who is not there.
  'GET /api/sessions/:id/as/:member': answers(401, 403, 403, 404, 404, 403),
  'GET /api/courses/:course/search': MEMBERS,
  'PUT /api/recordings/:id/watched': answers(401, 403, 422, 422, 422, 403),
  'GET /api/recordings/:id/watchers': THOSE_WHO_TEACH,
  // Asked with a title that is none, last: it is taken away and back by its teacher.
  'PUT /api/recordings/:id': answers(401, 403, 403, 403, 200, 403),
  // Asked with a moment that it has not.
  'PUT /api/recordings/:id/still': answers(401, 403, 403, 403, 422, 403),
  'DELETE /api/recordings/:id': answers(401, 403, 403, 403, 200, 403),
  'POST /api/recordings/:id/back': answers(401, 403, 403, 403, 200, 403),
  // Asked without a caption.
  'PUT /api/recordings/:id/captions/:language': TEACHING,
  // Asked in no language that there is.
  'DELETE /api/recordings/:id/captions/:language': TEACHING,
  'GET /api/courses/:course/roll-book': THOSE_WHO_TEACH,
  // Asked without a mark.
  'PUT /api/sessions/:id/roll/:member': TEACHING,
  'GET /api/sessions/:id/log/signed': THOSE_WHO_TEACH,
  'GET /api/sessions/:id/written': MEMBERS,
  'POST /api/sessions/:id/written': answers(401, 403, 422, 422, 422, 403),
  'GET /api/courses/:course/written': THOSE_WHO_TEACH,
  'GET /api/terms': ANY_STAFF,
  'POST /api/terms': STAFF,
  'POST /api/terms/:term/preview': STAFF_AND_GONE,
  'POST /api/terms/:term/letters': STAFF_AND_GONE,
  'PUT /api/terms/:term': STAFF_AND_GONE,
  'GET /api/college/rules': ANY_STAFF,
  'PUT /api/college/rules': STAFF,
  'POST /api/college/rules/undo': STAFF,
  'GET /api/bell-times': ANY_STAFF,
  'POST /api/bell-times': STAFF,
  'POST /api/bell-times/:bells/preview': STAFF_AND_GONE,
  'POST /api/bell-times/:bells/letters': STAFF_AND_GONE,
  'PUT /api/bell-times/:bells': STAFF_AND_GONE,
  'DELETE /api/bell-times/:bells': STAFF_AND_GONE,
  'GET /api/templates': ANY_STAFF,
  'DELETE /api/templates/:template': STAFF_AND_GONE,
  'POST /api/courses/:course/template': THE_TEACHER,
  'POST /api/courses/:course/template/apply': THE_TEACHER,
  // Asked without naming the term to carry to.
  'GET /api/courses/:course/carry': answers(401, 403, 403, 403, 404, 403),
  'POST /api/courses/:course/carry': THE_TEACHER,
  // One's own feed; a personal link speaks of its own course.
  'POST /api/feeds': answers(401, 200, 200, 200, 200, 200),
  // By its secret address alone.
  'GET /api/feeds/:code.ics': answers(404, 404, 404, 404, 404, 404),
  // One's own ways, by account or by link.
  'PUT /api/me/preferences': answers(401, 422, 422, 422, 422, 422),
  // One's own drafts, asked without a key.
  'GET /api/drafts': STAFF,
  'PUT /api/drafts': STAFF,
  'DELETE /api/drafts': STAFF,
  'PUT /api/courses/:course/limits': THE_TEACHER,
  'PUT /api/courses/:course/door': THE_TEACHER,
  'GET /api/courses/:course/rules': THOSE_WHO_TEACH,
  'DELETE /api/courses/:course/always/:member': THE_TEACHER_AND_GONE,
  'PUT /api/courses/:course/rules': THE_TEACHER,
  'POST /api/courses/:course/rules/undo': THE_TEACHER,
  'POST /api/courses/:course/exceptions': THE_TEACHER,
  // Ended by an id that nothing has.
  'POST /api/courses/:course/exceptions/:id/end': THE_TEACHER_AND_GONE,
  'POST /api/rule-sheets': STAFF,
  'GET /api/rule-sheets/:id/uses': STAFF_AND_GONE,
  'PUT /api/rule-sheets/:id': STAFF,
  'DELETE /api/rule-sheets/:id': STAFF_AND_GONE,
  'PUT /api/courses/:course/recording-plan': THE_TEACHER,
  'GET /api/courses/:course/members': THOSE_WHO_TEACH,
  'POST /api/courses/:course/members/preview': THE_TEACHER,
  'POST /api/courses/:course/members/letters': THE_TEACHER,
  'POST /api/courses/:course/members': THE_TEACHER,
  'POST /api/courses/:course/members/undo': THE_TEACHER,
  'GET /api/courses/:course/members/history': THOSE_WHO_TEACH,
  'GET /api/courses/:course/class-link': THOSE_WHO_TEACH,
  'PUT /api/courses/:course/class-link': THE_TEACHER,
  // Asked of a member who is not there.
  'GET /api/courses/:course/members/:member/data': THE_TEACHER_AND_GONE,
  'DELETE /api/courses/:course/members/:member/data': THE_TEACHER_AND_GONE,
  'POST /api/courses/:course/invitations/preview': THOSE_WHO_TEACH,
  'PUT /api/courses/:course/invitation': THE_TEACHER,
  'POST /api/courses/:course/invitations/letters': THE_TEACHER,
  'POST /api/courses/:course/invitations': THE_TEACHER,
  'PUT /api/courses/:course/reminders': THE_TEACHER,
  'PUT /api/courses/:course/invite-before': THE_TEACHER,
  'PUT /api/courses/:course/telephone': THE_TEACHER,
  'POST /api/courses/:course/telephone/letters': THE_TEACHER,
  'POST /api/courses/:course/deliveries/resend': THE_TEACHER,
  'PUT /api/my-course/reply': BY_LINK,
  'PUT /api/my-course/letters': BY_LINK,
  'PUT /api/my-course/me': BY_LINK,
  'GET /api/my-course/attendance': answers(401, 200, 200, 403, 403, 403),
  'GET /api/my-course/data': answers(401, 200, 200, 403, 403, 403),
  'GET /api/courses/:course/held-segments': THOSE_WHO_TEACH,
  'GET /api/sessions/:id/proof': THOSE_WHO_TEACH,
  'POST /api/sessions/:id/nudge': answers(401, 403, 403, 409, 409, 403),
  'PUT /api/courses/:course/series/:series/listed': THE_TEACHER,
  'GET /api/courses/:course/notices': MEMBERS,
  'POST /api/courses/:course/notices': TEACHING,
  'PUT /api/courses/:course/notices/:notice': TEACHING,
  'DELETE /api/courses/:course/notices/:notice': answers(401, 403, 403, 404, 404, 403),
  'GET /api/courses/:course/questions': THOSE_WHO_TEACH,
  'POST /api/courses/:course/questions': TEACHING,
  'PUT /api/courses/:course/questions/:question': TEACHING,
  'DELETE /api/courses/:course/questions/:question': answers(401, 403, 403, 404, 404, 403),
  'GET /api/sessions/:id/asked': THOSE_WHO_TEACH,
  'GET /api/courses/:course/materials': MEMBERS,
  'POST /api/courses/:course/materials/links': TEACHING,
  // Asked without a name for the file.
  'POST /api/courses/:course/materials': TEACHING,
  // Of a file that is not there, a link learns nothing.
  'PUT /api/materials/:material': answers(401, 403, 403, 404, 404, 404),
  'DELETE /api/materials/:material': answers(401, 403, 403, 404, 404, 404),
  'GET /api/sessions/:id/notes': MEMBERS,
  'GET /api/sessions/:id/attached': MEMBERS,
  // Asked without a name for the file.
  'POST /api/sessions/:id/attached': answers(401, 403, 422, 422, 422, 403),
  // By ticket alone.
  'GET /api/sessions/:id/decks': THOSE_WHO_TEACH,
  // Asked of a file that there is none of.
  'POST /api/sessions/:id/decks/:material': answers(401, 403, 403, 404, 404, 403),
  'GET /api/sessions/:id/decks/:deck/text': answers(401, 403, 403, 404, 404, 403),
  'PUT /api/sessions/:id/decks/:deck/notes/:page': answers(401, 403, 403, 422, 422, 403),
  'GET /api/sessions/:id/slides/:deck/:page': answers(401, 403, 422, 422, 422, 403),
  'GET /api/recordings/:id/slides/:deck/:page': answers(401, 401, 401, 401, 401, 401),
  'GET /api/shared/:code/slides/:deck/:page': answers(404, 404, 404, 404, 404, 404),
  'GET /api/attached/:id/file': answers(401, 401, 401, 401, 401, 401),
  'GET /api/materials/:material/file': answers(401, 401, 401, 401, 401, 401),
  'GET /api/listed': EVERYONE,
  'GET /api/listed.ics': EVERYONE,
  // By its secret address and the passcode alone.
  'GET /api/class/:code': answers(404, 404, 404, 404, 404, 404),
  'POST /api/class/:code': answers(404, 404, 404, 404, 404, 404),
  'GET /api/courses/:course/deliveries': THOSE_WHO_TEACH,
  // For whoever has an account of the college.
  'GET /api/inbox/set-aside': answers(401, 403, 403, 200, 200, 200),
  'GET /api/sessions/:id': MEMBERS,
  'GET /api/sessions/:id/log': THOSE_WHO_TEACH,
  'GET /api/my-course': answers(401, 200, 200, 403, 403, 403),
  'GET /api/recordings/:id': MEMBERS,
  // By ticket alone, which only those who may read the recording are given.
  'GET /api/recordings/:id/media/:file': answers(401, 401, 401, 401, 401, 401),
  'GET /api/recordings/:id/still': answers(401, 401, 401, 401, 401, 401),
  'GET /api/recordings/:id/captions/:language': answers(401, 401, 401, 401, 401, 401),
  // By ticket alone, as the film.
  'GET /api/recordings/:id/export/:kind': answers(404, 404, 404, 404, 404, 404),
  'GET /api/recordings/:id/exports/:export/file': answers(401, 401, 401, 401, 401, 401),
  // By a link that anybody may have: none is good here.
  'GET /api/shared/:code': answers(404, 404, 404, 404, 404, 404),
  'GET /api/shared/:code/media/:file': answers(404, 404, 404, 404, 404, 404),
  'GET /api/shared/:code/captions/:language': answers(404, 404, 404, 404, 404, 404),
  'GET /api/courses/:course/participation': MEMBERS,
  'GET /api/courses/:course/thoughts': THOSE_WHO_TEACH,
  // Asked with members that are none.
  'POST /api/courses/:course/words': TEACHING,
  'GET /api/sessions/:id/thought': MEMBERS,
  // Asked without stars.
  'POST /api/sessions/:id/thought': answers(401, 403, 422, 422, 422, 403),
  // One’s own, made at once; and by a secret address that nobody has.
  'POST /api/recordings/:id/listening': answers(401, 403, 200, 200, 200, 403),
  'GET /api/listening/:code.rss': answers(404, 404, 404, 404, 404, 404),
  'GET /api/listening/:code/:recording.mp3': answers(404, 404, 404, 404, 404, 404),
  // Cut by those who plan; what was recorded is had by a ticket for it alone.
  'GET /api/recordings/:id/cuts': answers(401, 403, 403, 403, 200, 403),
  'PUT /api/recordings/:id/cuts': THE_TEACHER,
  'PUT /api/recordings/:id/cuts/in-force': THE_TEACHER,
  'GET /api/recordings/:id/whole/media/:file': answers(401, 401, 401, 401, 401, 401),
  'GET /api/recordings/:id/whole/captions/:language': answers(401, 401, 401, 401, 401, 401),
  'PUT /api/recordings/:id/chapters': TEACHING,
  'GET /api/recordings/:id/shares': answers(401, 403, 403, 403, 200, 403),
  'POST /api/recordings/:id/shares': THE_TEACHER,
  'DELETE /api/recordings/:id/shares/:share': answers(401, 403, 403, 403, 404, 403),
  'GET /api/courses/:course/recording-space': THOSE_WHO_TEACH,
  'GET /api/recordings/:id/exports': MEMBERS,
  'GET /api/recordings/:id/notes': MEMBERS,
  'POST /api/recordings/:id/notes': answers(401, 403, 422, 422, 422, 403),
  'PUT /api/recordings/:id/notes/:note/answer': TEACHING,
  'DELETE /api/recordings/:id/notes/:note': answers(401, 403, 404, 404, 404, 403),
  'POST /api/recordings/:id/exports': answers(401, 403, 422, 422, 422, 403),
  'DELETE /api/recordings/:id/exports/:export': answers(401, 403, 404, 404, 404, 403),
  'GET /api/telephone': EVERYONE,
  'GET /api/mailbox': EVERYONE,
  'GET /api/mailbox/count': EVERYONE,
  'GET /api/mailbox/:id': answers(404, 404, 404, 404, 404, 404),
  // A body that cannot be meant.
  'POST /api/mailbox/:id/answer': answers(422, 422, 422, 422, 422, 422),
  'POST /api/sign-out': EVERYONE,
};

/** Every command of the room, for a student: refused as only a teacher's, or decided by the limits. */
export const STUDENT_COMMANDS: Record<
  CommandType,
  'teachers-only' | 'closed' | 'too-late' | 'no-tables' | 'at-no-table' | 'ok'
> = {
  ringIn: 'teachers-only',
  setLimit: 'teachers-only',
  hush: 'teachers-only',
  lift: 'teachers-only',
  mute: 'teachers-only',
  muteAll: 'teachers-only',
  askOn: 'teachers-only',
  giveFloor: 'teachers-only',
  takeFloor: 'teachers-only',
  clearBoard: 'teachers-only',
  openFor: 'teachers-only',
  closeAgain: 'teachers-only',
  lock: 'teachers-only',
  unlock: 'teachers-only',
  letIn: 'teachers-only',
  turnAway: 'teachers-only',
  porchWord: 'teachers-only',
  putOut: 'teachers-only',
  letBack: 'teachers-only',
  cue: 'teachers-only',
  goByClock: 'teachers-only',
  planLeft: 'teachers-only',
  startTimer: 'teachers-only',
  holdTimer: 'teachers-only',
  moreTime: 'teachers-only',
  stopTimer: 'teachers-only',
  ask: 'teachers-only',
  answer: 'too-late',
  closeAnswers: 'teachers-only',
  showAnswers: 'teachers-only',
  askAgain: 'teachers-only',
  putAway: 'teachers-only',
  pick: 'teachers-only',
  passOn: 'teachers-only',
  endPick: 'teachers-only',
  letGo: 'teachers-only',
  handOver: 'teachers-only',
  tellTimeLeft: 'teachers-only',
  unsay: 'teachers-only',
  keepQuestion: 'teachers-only',
  setFront: 'teachers-only',
  showSlides: 'teachers-only',
  turnSlide: 'teachers-only',
  frameSlide: 'teachers-only',
  letLeaf: 'teachers-only',
  putSlidesAway: 'teachers-only',
  layTables: 'teachers-only',
  seatAt: 'teachers-only',
  goTo: 'no-tables',
  wordToTables: 'teachers-only',
  callHelp: 'at-no-table',
  moreTableTime: 'teachers-only',
  endTables: 'teachers-only',
  showWork: 'teachers-only',
  putWorkBack: 'teachers-only',
  markSlide: 'closed',
  clearMarks: 'teachers-only',
  startRecording: 'teachers-only',
  pauseRecording: 'teachers-only',
  answerRecording: 'ok',
  resumeRecording: 'teachers-only',
  dismiss: 'teachers-only',
  microphone: 'closed',
  camera: 'closed',
  present: 'closed',
  draw: 'closed',
  putText: 'closed',
  rename: 'closed',
  say: 'closed',
  raiseHand: 'ok',
  giveSign: 'closed',
  lowerHand: 'ok',
};
