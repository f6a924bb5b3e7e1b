import { expect, request, test, type APIRequestContext } from '@playwright/test';
import type { CommandType, RoomCommand } from '@nimble-bell/core/room';
import { io, type Socket } from 'socket.io-client';
import { ASKERS, ROUTES, STUDENT_COMMANDS, type Asker } from './support/authorisation';
import { account, byLink, makeCourse } from './support/course';
import { INES, MAREN, TEO } from './support/people';
import { BASE_URL } from './support/product';

async function demoLinks() {
  const api = await request.newContext({ baseURL: BASE_URL });
  const { links } = await (await api.get('/api/demo')).json();
  const of = (code: string): string =>
    links.find((l: { about: string }) => l.about.includes(code)).path.replace('/in/', '');
  return { student: of('NAV-210'), elsewhere: of('LOG-120') };
}

async function navigation(api: APIRequestContext) {
  const courses = await (await api.get('/api/courses')).json();
  const course = courses.find((c: { code: string }) => c.code === 'NAV-210');
  const detail = await (await api.get(`/api/courses/${course.id}`)).json();
  const lectures = detail.sessions.filter((s: { seriesTitle: string }) => s.seriesTitle === 'Lecture');
  const held = lectures.filter((s: { state: string }) => s.state === 'held').at(-1);
  const { recordings } = await (await api.get(`/api/sessions/${held.id}`)).json();
  return {
    course: course.id as string,
    series: detail.series.find((s: { title: string }) => s.title === 'Lecture').id as string,
    session: held.id as string,
    next: course.next.id as string,
    recording: recordings[0].id as string,
  };
}

test('every route answers each person as the table says', async () => {
  const links = await demoLinks();
  const askers: Record<Asker, APIRequestContext> = {
    nobody: await request.newContext({ baseURL: BASE_URL }),
    elsewhere: await byLink(links.elsewhere),
    student: await byLink(links.student),
    assistant: await account(TEO),
    teacher: await account(MAREN),
    stranger: await account(INES),
  };
  const ids = await navigation(askers.teacher);
  for (const [route, expected] of Object.entries(ROUTES)) {
    const [method, pattern] = route.split(' ') as [string, string];
    const id = pattern.includes('/sessions/')
      ? ids.session
      : pattern.includes('/recordings/')
        ? ids.recording
        : 'none';
    const path = pattern.replace(':course', ids.course).replace(':series', ids.series).replace(':id', id);
    for (const asker of ASKERS) {
      const body =
        method === 'GET'
          ? {}
          : { data: { email: 'nobody@saltmarsh.example', password: '-', text: 7, zone: 7, members: 7 } };
      const answer = await askers[asker].fetch(path, { method, ...body });
      expect
        .soft(answer.status(), `${route} as ${asker}: ${(await answer.text()).slice(0, 120)}`)
        .toBe(expected[asker]);
    }
  }
  for (const api of Object.values(askers)) await api.dispose();
});

test('a replaced or invented link opens nothing', async () => {
  const api = await byLink('22222222222222zz');
  expect((await api.get('/api/my-course')).status()).toBe(401);
  await api.dispose();
});

test('an answer to a student holds no roll, no other link and no address', async () => {
  const links = await demoLinks();
  const teacher = await account(MAREN);
  const { session, course } = await navigation(teacher);
  const members = await (await teacher.get(`/api/courses/${course}/members`)).json();
  const student = await byLink(links.student);
  const texts = [
    await (await student.get(`/api/sessions/${session}`)).text(),
    await (await student.get('/api/my-course')).text(),
  ];
  for (const text of texts) {
    expect(text).not.toContain('"minutes":0,"late"');
    for (const m of members) expect((m.link && text.includes(m.link)) || text.includes(m.email)).toBeFalsy();
  }
});

const COMMANDS: Record<CommandType, RoomCommand> = {
  ringIn: { type: 'ringIn' },
  setLimit: { type: 'setLimit', capability: 'speak', state: 'closed' },
  hush: { type: 'hush' },
  lift: { type: 'lift' },
  mute: { type: 'mute', member: 'self' },
  muteAll: { type: 'muteAll' },
  giveFloor: { type: 'giveFloor', member: 'self' },
  askOn: { type: 'askOn', member: 'self' },
  letTwoPresent: { type: 'letTwoPresent', on: true },
  askToPresent: { type: 'askToPresent', member: 'self' },
  takeFloor: { type: 'takeFloor' },
  clearBoard: { type: 'clearBoard' },
  undoClearing: { type: 'undoClearing' },
  turnBoard: { type: 'turnBoard', side: 2 },
  layGround: { type: 'layGround', ground: 'squared' },
  giveBoards: { type: 'giveBoards', given: true },
  openFor: { type: 'openFor', capability: 'writeToClass', seconds: 60 },
  closeAgain: { type: 'closeAgain' },
  lock: { type: 'lock' },
  unlock: { type: 'unlock' },
  letIn: { type: 'letIn', members: ['self'] },
  turnAway: { type: 'turnAway', members: ['self'], word: '' },
  porchWord: { type: 'porchWord', text: 'In a moment.' },
  startRecording: { type: 'startRecording' },
  pauseRecording: { type: 'pauseRecording' },
  answerRecording: { type: 'answerRecording', agrees: true },
  resumeRecording: { type: 'resumeRecording' },
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
  answer: { type: 'answer', question: 1, answer: 0 },
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
  markSlide: {
    ...{ type: 'markSlide', deck: 'a'.repeat(64), page: 1 },
    stroke: { points: [0.5, 0.5], colour: 'ink' },
  },
  feature: { type: 'feature', member: null },
  setCaptioner: { type: 'setCaptioner', member: 'self', on: true },
  letListen: { type: 'letListen', on: true },
  caption: { type: 'caption', text: 'The tide turns' },
  showFilm: { type: 'showFilm', material: 'none', name: 'Spring tide.webm' },
  playFilm: { type: 'playFilm', playing: true, position: 0 },
  putFilmAway: { type: 'putFilmAway' },
  openCard: { type: 'openCard', url: 'https://tides.example/today', title: 'Today' },
  putCardAway: { type: 'putCardAway' },
  layTables: { type: 'layTables', tables: [{ name: 'Table 1', members: [] }], seconds: 60, limits: {} },
  seatAt: { type: 'seatAt', member: 'self', place: 'class' },
  goTo: { type: 'goTo', place: 'class' },
  limitTables: { type: 'limitTables', limits: { speak: 'closed' } },
  wordToTables: { type: 'wordToTables', text: 'Two minutes' },
  callHelp: { type: 'callHelp', on: true },
  moreTableTime: { type: 'moreTableTime', seconds: 60 },
  endTables: { type: 'endTables' },
  showWork: { type: 'showWork', place: 'table-1-1' },
  putWorkBack: { type: 'putWorkBack' },
  passOn: { type: 'passOn' },
  endPick: { type: 'endPick' },
  microphone: { type: 'microphone', on: true },
  onlyListen: { type: 'onlyListen', on: false },
  camera: { type: 'camera', on: true },
  present: { type: 'present', on: true },
  draw: { type: 'draw', stroke: { points: [0.5, 0.5], colour: 'ink' } },
  putText: { type: 'putText', text: { text: 'Ebb', at: [0.1, 0.1], colour: 'ink' } },
  putShape: { type: 'putShape', shape: { shape: 'box', from: [0.1, 0.1], to: [0.5, 0.5], colour: 'ink' } },
  putPicture: {
    type: 'putPicture',
    picture: { jpeg: '/9j/wAARCAABAAEDAREAAhEAAxEA', words: 'A buoy', from: [0.1, 0.1], to: [0.4, 0.2] },
  },
  takeOff: { type: 'takeOff', marks: [1] },
  putBack: { type: 'putBack', marks: [1] },
  shift: { type: 'shift', marks: [1], x: 0.1, y: 0 },
  say: { type: 'say', addressee: { to: 'class' }, text: 'hello' },
  raiseHand: { type: 'raiseHand' },
  giveSign: { type: 'giveSign', sign: 'lost' },
  lowerHand: { type: 'lowerHand', member: 'self' },
  lowerAll: { type: 'lowerAll' },
  rename: { type: 'rename', member: 'self', name: 'Another Name' },
  // From here on this person is not there any more.
  putOut: { type: 'putOut', member: 'self', back: 'may', reason: '' },
  letBack: { type: 'letBack', member: 'self' },
  dismiss: { type: 'dismiss' },
};

/** What those who teach cannot do, or not with one student alone. */
const NOT_FOR_TEACHERS: Partial<Record<CommandType, string>> = {
  answer: 'not-asked',
  askToPresent: 'no-presenting',
  passOn: 'nobody-else',
  handOver: 'not-here',
  undoClearing: 'nothing-cleared',
  takeOff: 'no-mark',
  putBack: 'no-mark',
  shift: 'no-mark',
  unsay: 'no-message',
  keepQuestion: 'no-message',
  showSlides: 'not-found',
  turnSlide: 'no-slides',
  frameSlide: 'no-slides',
  letLeaf: 'no-slides',
  clearMarks: 'no-slides',
  markSlide: 'page-turned',
  callHelp: 'at-no-table',
  caption: 'no-captioner',
  showFilm: 'not-found',
  playFilm: 'no-film',
};

const connect = (auth: object, cookie?: string): Socket =>
  io(BASE_URL, {
    path: '/live',
    transports: ['websocket'],
    auth,
    forceNew: true,
    ...(cookie ? { extraHeaders: { cookie } } : {}),
  });

async function cookieOf(api: APIRequestContext) {
  const { cookies } = await api.storageState();
  return cookies.map((c) => `${c.name}=${c.value}`).join('; ');
}

test('every socket command is decided as the table says, for nobody, elsewhere, student, assistant and teacher', async () => {
  const links = await demoLinks();
  const teacherApi = await account(MAREN);
  const { next } = await navigation(teacherApi);
  const teacher = connect({}, await cookieOf(teacherApi));
  const assistant = connect({}, await cookieOf(await account(TEO)));
  const student = connect({ link: links.student });
  const elsewhere = connect({ link: links.elsewhere });
  const nobody = connect({ link: 'nothing' });
  const sockets = [teacher, assistant, student, elsewhere, nobody];
  try {
    const refusedAtTheDoor = new Promise<string>((resolve) =>
      nobody.on('connect_error', (e) => resolve(e.message)),
    );
    expect(await refusedAtTheDoor).toContain('This link is not known');

    const enter = (socket: Socket) => socket.emitWithAck('enter', { session: next, after: 0 });
    // A table of all commands is more than a hand gives at once.
    const send = async (socket: Socket, command: unknown) => {
      for (;;) {
        const reply = await socket.emitWithAck('command', { id: crypto.randomUUID(), command });
        if (reply.ok || reply.refusal.code !== 'too-many') return reply;
        await new Promise((resolve) => setTimeout(resolve, 500));
      }
    };
    expect(await enter(elsewhere)).toMatchObject({ ok: false, refusal: { code: 'forbidden' } });
    expect((await enter(student)).refusal.message).toMatch(/^The door opens Tue 6 Oct, \d\d:15, \w+ time\.$/);
    for (const message of ['command', 'publish', 'watch', 'answer', 'unpublish'])
      expect(
        await elsewhere.emitWithAck(message, { id: crypto.randomUUID(), command: COMMANDS.ringIn, sdp: '' }),
      ).toMatchObject({ ok: false });

    expect((await enter(teacher)).ok).toBe(true);
    expect((await enter(assistant)).ok).toBe(true);
    expect((await send(assistant, COMMANDS.ringIn)).ok).toBe(true);
    const entered = await enter(student);
    expect(entered.ok).toBe(true);
    const self = entered.info.me.member;
    for (const capability of ['speak', 'camera', 'present', 'draw', 'writeToClass', 'react'])
      expect((await send(teacher, { type: 'setLimit', capability, state: 'closed' })).ok).toBe(true);

    for (const [type, expected] of Object.entries(STUDENT_COMMANDS)) {
      const template = COMMANDS[type as CommandType];
      const command = 'member' in template ? { ...template, member: self } : template;
      const reply = await send(student, command);
      expect.soft(reply.ok ? 'ok' : reply.refusal.code, `student: ${type}`).toBe(expected);
      const cast = await send(elsewhere, command);
      expect.soft(cast.ok ? 'ok' : cast.refusal.code, `elsewhere: ${type}`).toBe('forbidden');
    }
    // The same commands from those who teach are taken; dismissal comes last and ends the room.
    for (const type of Object.keys(COMMANDS) as CommandType[]) {
      const template = COMMANDS[type];
      const command = 'member' in template ? { ...template, member: self } : template;
      const socket = type === 'dismiss' ? teacher : assistant;
      if (type === 'mute') await send(teacher, { type: 'muteAll' });
      const reply = await send(socket, command);
      expect
        .soft(reply.ok ? 'ok' : reply.refusal.code, `assistant: ${type}`)
        .toBe(NOT_FOR_TEACHERS[type] ?? 'ok');
    }
    await expect.poll(() => student.connected).toBe(false);
  } finally {
    for (const socket of sockets) socket.disconnect();
  }
});

test('a word to the teachers never reaches another student, not even by asking again', async () => {
  const course = await makeCourse();
  const teacherApi = await account(MAREN);
  const teacher = connect({}, await cookieOf(teacherApi));
  const [ana, ben] = course.students.map((s) => connect({ link: s.link.replace('/in/', '') })) as [
    Socket,
    Socket,
  ];
  try {
    const enter = (socket: Socket) => socket.emitWithAck('enter', { session: course.session, after: 0 });
    await enter(teacher);
    await teacher.emitWithAck('command', { id: crypto.randomUUID(), command: { type: 'ringIn' } });
    await enter(ana);
    await enter(ben);
    const heard: unknown[] = [];
    ben.on('events', (events) => heard.push(...events));
    const told = new Promise<unknown[]>((resolve) =>
      teacher.on('events', (events) => events[0].type === 'said' && resolve(events)),
    );
    const say = { type: 'say', addressee: { to: 'teachers' }, text: 'only for you' };
    expect((await ana.emitWithAck('command', { id: crypto.randomUUID(), command: say })).ok).toBe(true);
    expect(JSON.stringify(await told)).toContain('only for you');
    expect(JSON.stringify(heard)).not.toContain('only for you');
    expect(JSON.stringify(await enter(ben))).not.toContain('only for you');
    expect(JSON.stringify(await enter(ana))).toContain('only for you');
    await teacher.emitWithAck('command', { id: crypto.randomUUID(), command: { type: 'dismiss' } });
  } finally {
    for (const socket of [teacher, ana, ben]) socket.disconnect();
  }
});
