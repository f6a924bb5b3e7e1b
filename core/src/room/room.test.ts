import fc from 'fast-check';
import { TRACK_KINDS, Capability } from '../limits/index';
import { ana, anyStep, ben, entry, lecture, maren } from '../testing/index';
import {
  audience,
  snapshotFor,
  classLimit,
  COMMANDS,
  dueBy,
  evolve,
  may,
  newRoom,
  refusalWords,
  sends,
  type Actor,
  type CommandType,
  type RoomCommand,
  type RoomState,
} from './index';

test('everyone walks in muted, with the camera off', () => {
  expect(lecture({ speak: 'open' }).state.desk).toEqual({
    microphone: {},
    camera: {},
    listens: {},
    asked: {},
  });
});

test('a closed microphone is refused with who closed it and what one can do instead', () => {
  const room = lecture({ speak: 'closed' });
  expect(room.refusal(ana, { type: 'microphone', on: true })!.message).toBe(
    'Speaking is closed for this course by Maren Oduya. You can raise your hand or write to a teacher.',
  );
  expect(room.do(maren, { type: 'microphone', on: true }).ok).toBe(true);
});

test('who may speak is asked to switch on, and nobody else hears of it; who may not is given the floor', () => {
  const room = lecture({ speak: 'byHand' });
  expect(room.refusal(maren, { type: 'askOn', member: 'ana' })!.code).toBe('no-floor');
  room.do(maren, { type: 'giveFloor', member: 'ana' });
  room.do(maren, { type: 'askOn', member: 'ana' });
  expect(room.state.desk.asked).toEqual({ ana: 'maren' });
  expect(audience(room.events.at(-1)!, ben, room.state)).toBeNull();
  expect(room.do(maren, { type: 'askOn', member: 'ana' })).toMatchObject({ events: [] });
  room.do(ana, { type: 'microphone', on: true });
  expect(room.state.desk.asked).toEqual({});
});

test('who may present is asked to, begins by themselves, and nobody else hears of it', () => {
  const room = lecture({ present: 'byHand' });
  const ask = { type: 'askToPresent', member: 'ana' } as const;
  expect(room.refusal(maren, ask)!.code).toBe('no-presenting');
  expect(room.refusal(maren, { ...ask, member: 'zoe' })!.code).toBe('not-here');
  room.do(maren, { type: 'giveFloor', member: 'ana' });
  room.do(maren, ask);
  expect(room.do(maren, ask)).toMatchObject({ events: [] });
  expect(audience(room.events.at(-1)!, ben, room.state)).toBeNull();
  expect(snapshotFor(room.state, ben).stage.asked).toEqual({});
  expect(snapshotFor(room.state, ana).stage.asked).toEqual({ ana: 'maren' });
  room.do(ana, { type: 'present', on: true });
  expect(room.state.stage).toMatchObject({ asked: {}, presenting: { class: ['ana'] } });
  expect(room.do(maren, ask)).toMatchObject({ events: [] });
  room.do(ana, { type: 'present', on: false });
  room.do(maren, ask);
  room.happen({ type: 'left', member: 'ana' });
  expect(room.state.stage.asked).toEqual({});
});

test('all are muted, with or without their right to switch on again', () => {
  const room = lecture({ speak: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'muteAll' });
  expect(room.do(ana, { type: 'microphone', on: true }).ok).toBe(true);
  room.do(maren, { type: 'muteAll', again: false });
  expect(room.state.desk.microphone).toEqual({});
  expect(room.refusal(ana, { type: 'microphone', on: true })!.code).toBe('closed');
});

test('who only listens is not asked to speak, until they switch on by themselves', () => {
  const room = lecture({ speak: 'open', seeMarks: 'closed' });
  room.do(ana, { type: 'microphone', on: true });
  room.do(ana, { type: 'onlyListen', on: true });
  expect(room.state.desk.microphone).toEqual({});
  expect(room.refusal(maren, { type: 'askOn', member: 'ana' })!.code).toBe('only-listens');
  // It is a mark like others: where those are closed, theirs and the teachers' alone.
  expect([ana, ben, maren].map((v) => snapshotFor(room.state, v).desk.listens)).toEqual([
    { ana: true },
    {},
    { ana: true },
  ]);
  expect(audience(room.events.at(-1)!, ben, room.state)).toBeNull();
  room.do(ana, { type: 'microphone', on: true });
  expect(room.state.desk.listens).toEqual({});
  room.do(ana, { type: 'onlyListen', on: true });
  room.happen({ type: 'left', member: 'ana' });
  expect(room.state.desk.listens).toEqual({});
});

test('a student gives no teaching command, whatever it is', () => {
  const room = lecture({ speak: 'open' });
  const commands: Record<string, RoomCommand> = {
    ringIn: { type: 'ringIn' },
    dismiss: { type: 'dismiss' },
    setLimit: { type: 'setLimit', capability: 'speak', state: 'open' },
    openFor: { type: 'openFor', capability: 'writeToClass', seconds: 60 },
    closeAgain: { type: 'closeAgain' },
    limitTables: { type: 'limitTables', limits: { speak: 'closed' } },
    hush: { type: 'hush' },
    lift: { type: 'lift' },
    mute: { type: 'mute', member: 'ben' },
    lowerAll: { type: 'lowerAll' },
    muteAll: { type: 'muteAll' },
    askOn: { type: 'askOn', member: 'ana' },
    letTwoPresent: { type: 'letTwoPresent', on: true },
    askToPresent: { type: 'askToPresent', member: 'ana' },
    giveFloor: { type: 'giveFloor', member: 'ana' },
    takeFloor: { type: 'takeFloor' },
    clearBoard: { type: 'clearBoard' },
    undoClearing: { type: 'undoClearing' },
    turnBoard: { type: 'turnBoard', side: 2 },
    layGround: { type: 'layGround', ground: 'squared' },
    giveBoards: { type: 'giveBoards', given: true },
    startRecording: { type: 'startRecording' },
    pauseRecording: { type: 'pauseRecording' },
    resumeRecording: { type: 'resumeRecording' },
    lock: { type: 'lock' },
    unlock: { type: 'unlock' },
    letIn: { type: 'letIn', members: ['ben'] },
    turnAway: { type: 'turnAway', members: ['ben'], word: '' },
    porchWord: { type: 'porchWord', text: 'In a moment.' },
    putOut: { type: 'putOut', member: 'ben', back: 'may', reason: '' },
    letBack: { type: 'letBack', member: 'ben' },
    cue: { type: 'cue', index: 0 },
    goByClock: { type: 'goByClock', on: true },
    planLeft: { type: 'planLeft', left: [] },
    startTimer: { type: 'startTimer', seconds: 60 },
    holdTimer: { type: 'holdTimer', hold: true },
    moreTime: { type: 'moreTime', seconds: 60 },
    stopTimer: { type: 'stopTimer' },
    ask: {
      type: 'ask',
      question: { text: '', kind: 'yesNo', options: [], right: null, anonymous: false },
    },
    closeAnswers: { type: 'closeAnswers' },
    showAnswers: { type: 'showAnswers', right: false },
    askAgain: { type: 'askAgain' },
    putAway: { type: 'putAway' },
    pick: { type: 'pick' },
    letGo: { type: 'letGo', on: true },
    handOver: { type: 'handOver', to: 'nobody' },
    tellTimeLeft: { type: 'tellTimeLeft', minutes: 5 },
    unsay: { type: 'unsay', message: 1 },
    keepQuestion: { type: 'keepQuestion', message: 1, as: 'later' },
    setFront: { type: 'setFront', tool: 'board' },
    showSlides: {
      type: 'showSlides',
      deck: { id: 'a'.repeat(64), name: 'Tides.pdf', kind: 'pdf', pages: 3 },
      page: 1,
    },
    turnSlide: { type: 'turnSlide', page: 2 },
    frameSlide: { type: 'frameSlide', frame: { fit: 'page', zoom: 2, x: 0.5, y: 0.5 } },
    letLeaf: { type: 'letLeaf', leafing: 'freely' },
    putSlidesAway: { type: 'putSlidesAway' },
    clearMarks: { type: 'clearMarks', page: 1 },
    endPick: { type: 'endPick' },
    layTables: { type: 'layTables', tables: [{ name: 'Table 1', members: [] }], seconds: 60, limits: {} },
    seatAt: { type: 'seatAt', member: 'ben', place: 'class' },
    wordToTables: { type: 'wordToTables', text: 'Two minutes' },
    moreTableTime: { type: 'moreTableTime', seconds: 60 },
    endTables: { type: 'endTables' },
    feature: { type: 'feature', member: 'ben' },
    setCaptioner: { type: 'setCaptioner', member: 'ben', on: true },
    letListen: { type: 'letListen', on: true },
    showFilm: { type: 'showFilm', material: 'f1', name: 'Spring tide.webm' },
    playFilm: { type: 'playFilm', playing: true, position: 0 },
    putFilmAway: { type: 'putFilmAway' },
    openCard: { type: 'openCard', url: 'https://tides.example/today', title: 'Today' },
    putCardAway: { type: 'putCardAway' },
    showWork: { type: 'showWork', place: 'table-1-1' },
    putWorkBack: { type: 'putWorkBack' },
  };
  const teaching = Object.entries(COMMANDS).filter(([, rule]) => rule.who === 'teaching');
  expect(Object.keys(commands).sort()).toEqual(teaching.map(([type]) => type as CommandType).sort());
  for (const command of Object.values(commands))
    expect(room.refusal(ana, command)?.code).toBe('teachers-only');
});

test('who is not in the room commands nothing', () => {
  const room = lecture();
  room.happen({ type: 'left', member: 'ana' });
  expect(room.refusal(ana, { type: 'raiseHand' })?.code).toBe('absent');
  expect(room.refusal({ member: 'nobody', role: 'teacher' }, { type: 'dismiss' })?.code).toBe('absent');
});

test('the floor lets one person speak and ends with the turn', () => {
  const room = lecture({ speak: 'byHand' });
  room.do(ana, { type: 'raiseHand' });
  room.do(ben, { type: 'raiseHand' });
  expect(room.state.floor.hands.map((h) => h.member)).toEqual(['ana', 'ben']);
  room.do(maren, { type: 'giveFloor', member: 'ana' });
  expect(room.state.floor.hands.map((h) => h.member)).toEqual(['ben']);
  expect(may(room.state, { member: 'ana', role: 'student' }, 'speak').allowed).toBe(true);
  expect(may(room.state, { member: 'ben', role: 'student' }, 'speak').allowed).toBe(false);
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'giveFloor', member: 'ben' });
  expect(room.state.floor.holder).toBe('ben');
  for (const who of [ana, ben]) room.do(who, { type: 'raiseHand' });
  room.do(maren, { type: 'lowerAll' });
  expect(room.state.floor.hands).toEqual([]);
  expect(sends(room.state, 'ana', 'sound')).toBe(false);
});

test('closing a limit turns switches off for good: opening again opens no microphone', () => {
  const room = lecture({ speak: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'closed' });
  expect(sends(room.state, 'ana', 'sound')).toBe(false);
  room.do(maren, { type: 'setLimit', capability: 'speak', state: 'open' });
  expect(sends(room.state, 'ana', 'sound')).toBe(false);
});

test('mute takes one, mute all takes every student and no teacher', () => {
  const room = lecture({ speak: 'open' });
  for (const who of [maren, ana, ben]) room.do(who, { type: 'microphone', on: true });
  room.do(maren, { type: 'mute', member: 'ana' });
  expect(['ana', 'ben', 'maren'].map((m) => sends(room.state, m, 'sound'))).toEqual([false, true, true]);
  room.do(maren, { type: 'muteAll' });
  expect(['ben', 'maren'].map((m) => sends(room.state, m, 'sound'))).toEqual([false, true]);
});

test('hush leaves a word to a teacher open, and no limit is set beneath it', () => {
  const room = lecture({ speak: 'open', writeToClass: 'open' });
  room.do(maren, { type: 'hush' });
  expect(room.refusal(ana, { type: 'say', addressee: { to: 'class' }, text: 'hello' })!.message).toContain(
    'has hushed',
  );
  expect(room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'I am lost' }).ok).toBe(true);
  expect(room.refusal(maren, { type: 'setLimit', capability: 'speak', state: 'open' })?.code).toBe('hushed');
});

const picture = (state: RoomState) => ({
  limits: Capability.options.map((c) => classLimit(state, c).state),
  sending: ['maren', 'ana', 'ben'].map((m) => TRACK_KINDS.map((w) => sends(state, m, w))),
  floor: state.floor,
});

test('lifting a hush brings back exactly what was before it, whatever that was', () => {
  fc.assert(
    fc.property(fc.array(anyStep, { maxLength: 30 }), (steps) => {
      const room = lecture();
      for (const [actor, command] of steps) room.do(actor, command);
      const before = picture(room.state);
      room.do(maren, { type: 'hush' });
      for (const m of ['ana', 'ben']) expect(sends(room.state, m, 'sound')).toBe(false);
      room.do(maren, { type: 'lift' });
      expect(picture(room.state)).toEqual(before);
    }),
  );
});

test('nobody ever sends what the limits do not allow, after any commands', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(anyStep, fc.boolean()), { maxLength: 40 }), (steps) => {
      const room = lecture();
      for (const [[actor, command], hush] of steps) {
        room.do(actor, command);
        if (hush) room.do(maren, { type: room.state.limits.hush ? 'lift' : 'hush' });
        for (const m of ['ana', 'ben']) {
          if (sends(room.state, m, 'sound'))
            expect(may(room.state, { member: m, role: 'student' }, 'speak').allowed).toBe(true);
          if (sends(room.state, m, 'camera'))
            expect(may(room.state, { member: m, role: 'student' }, 'camera').allowed).toBe(true);
          if (sends(room.state, m, 'screen'))
            expect(may(room.state, { member: m, role: 'student' }, 'present').allowed).toBe(true);
        }
      }
    }),
  );
});

test('a page that evolves the same events has the same room', () => {
  const room = lecture({ speak: 'open' });
  room.do(ana, { type: 'microphone', on: true });
  room.do(maren, { type: 'say', addressee: { to: 'class' }, text: 'Good evening.' });
  room.do(maren, { type: 'draw', stroke: { points: [0.1, 0.1, 0.2, 0.2], colour: 'ink' } });
  const again = room.events.reduce(evolve, newRoom());
  expect(again).toEqual(room.state);
});

test('a word to the teachers reaches them and its writer, and no other student', () => {
  const room = lecture();
  room.do(ana, { type: 'say', addressee: { to: 'teachers' }, text: 'May I leave early?' });
  const said = room.events.at(-1)!;
  expect(audience(said, ana, room.state)).toEqual(said);
  expect(audience(said, maren, room.state)).toEqual(said);
  expect(audience(said, ben, room.state)).toBeNull();
});

test('students write to one another only where it is open, and a teacher can read it', () => {
  const room = lecture();
  const note: RoomCommand = { type: 'say', addressee: { to: 'member', member: 'ben' }, text: 'psst' };
  expect(room.refusal(ana, note)?.code).toBe('closed');
  room.do(maren, { type: 'setLimit', capability: 'writeToStudents', state: 'open' });
  expect(room.do(ana, note).ok).toBe(true);
  expect(audience(room.events.at(-1)!, maren, room.state)).not.toBeNull();
  expect(
    room.do(ana, { type: 'say', addressee: { to: 'member', member: 'maren' }, text: 'to the teacher' }).ok,
  ).toBe(true);
});

test('one presents at a time; a teacher takes it over', () => {
  const room = lecture({ present: 'open' });
  room.do(ana, { type: 'present', on: true });
  expect(room.refusal(ben, { type: 'present', on: true })!.message).toContain('Ana Lanyon is presenting');
  room.do(maren, { type: 'present', on: true });
  expect(room.state.stage.presenting).toEqual({ class: ['maren'] });
});

test('dismissal empties the room, and nothing more is taken', () => {
  const room = lecture();
  room.do(maren, { type: 'dismiss' });
  expect(Object.values(room.state.presence.people).some((o) => o.present)).toBe(false);
  expect(room.refusal(maren, { type: 'ringIn' })?.code).toBe('absent');
});

test('each change is told to students in one line', () => {
  const room = lecture({ speak: 'open' });
  const line = (command: RoomCommand) => (room.do(maren, command), room.state.notice?.text);
  expect(line({ type: 'setLimit', capability: 'writeToClass', state: 'closed' })).toBe(
    'Writing to the class is now closed.',
  );
  expect(line({ type: 'setLimit', capability: 'speak', state: 'byHand' })).toBe(
    'Speaking is now by hand: raise yours to ask.',
  );
  expect(line({ type: 'giveFloor', member: 'ana' })).toBe('Ana Lanyon has the floor.');
  expect(line({ type: 'hush' })).toContain('Maren Oduya has hushed the room');
});

test('an observer may do nothing', () => {
  const room = lecture({ speak: 'open' });
  const observer: Actor = { member: 'olu', role: 'observer' };
  room.happen(entry('olu', 'Olu', 'observer'));
  expect(room.refusal(observer, { type: 'microphone', on: true })).toEqual({
    code: 'closed',
    message: 'Observers watch and listen.',
  });
  expect(refusalWords(room.state, observer, 'draw')).toBe('Observers watch and listen.');
});

test('open for one question: after its time it is as it was, whoever set that and when', () => {
  const room = lecture({ writeToClass: 'open', draw: 'closed' });
  room.do(maren, { type: 'setLimit', capability: 'writeToClass', state: 'closed' });
  const before = room.state.limits.live;
  room.do(maren, { type: 'openFor', capability: 'writeToClass', seconds: 30 });
  expect(room.state.notice!.text).toBe('Writing to the class is open for 30 seconds.');
  expect(may(room.state, ana, 'writeToClass').allowed).toBe(true);
  const { until } = room.state.limits.lent!;
  expect(dueBy(room.state, until - 1)).toEqual([]);
  room.happen(...dueBy(room.state, until));
  expect(room.state.limits).toMatchObject({ lent: null, live: before });
  expect(may(room.state, ana, 'writeToClass').allowed).toBe(false);
  expect(room.state.notice!.text).toBe('Writing to the class is now closed.');
  // What nobody had set in class is the course's again.
  room.do(maren, { type: 'openFor', capability: 'draw', seconds: 30 });
  room.do(maren, { type: 'closeAgain' });
  expect(classLimit(room.state, 'draw')).toMatchObject({ state: 'closed', because: { layer: 'course' } });
});

test('what is open for a while closes under hush too, stays once a teacher says so, and is one at a time', () => {
  const room = lecture({ writeToClass: 'closed', draw: 'closed', speak: 'closed' });
  const dueAll = () => room.happen(...dueBy(room.state, Infinity));
  room.do(maren, { type: 'openFor', capability: 'draw', seconds: 30 });
  room.do(maren, { type: 'openFor', capability: 'writeToClass', seconds: 30 });
  expect(classLimit(room.state, 'draw').state).toBe('closed');
  room.do(maren, { type: 'hush' });
  expect(room.refusal(maren, { type: 'openFor', capability: 'draw', seconds: 30 })?.code).toBe('hushed');
  dueAll();
  room.do(maren, { type: 'lift' });
  expect(classLimit(room.state, 'writeToClass').state).toBe('closed');
  // Speaking that was open for a while leaves no microphone on.
  room.do(maren, { type: 'openFor', capability: 'speak', seconds: 30 });
  room.do(ana, { type: 'microphone', on: true });
  dueAll();
  expect([sends(room.state, 'ana', 'sound'), room.state.desk.microphone]).toEqual([false, {}]);
  room.do(maren, { type: 'openFor', capability: 'draw', seconds: 30 });
  room.do(maren, { type: 'setLimit', capability: 'draw', state: 'byHand' });
  expect([room.state.limits.lent, classLimit(room.state, 'draw').state]).toEqual([null, 'byHand']);
});
