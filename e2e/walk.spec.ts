import { throughDoor } from './support/course';
import { expect, test, type Page } from '@playwright/test';
import { io } from 'socket.io-client';
import { BASE_URL } from './support/product';
import { classList, MAREN, person, seat, signIn } from './support/people';

/** The whole way, once: a term planned, invited, limited, taught, recorded, watched. */
test('a teacher plans, invites, limits, teaches and records; two students take part; one watches later', async ({
  browser,
  page,
}) => {
  test.setTimeout(240_000);
  const step = test.step;
  await watchConnections(page);
  page.on('pageerror', (error) => console.log(`page error: ${error.stack}`));
  // A second try finds the course of the first.
  const code = `TID-10${1 + test.info().retry}`;
  let courseUrl = '';
  const links: Record<string, string> = {};
  const [ana] = await person(browser, {
    viewport: { width: 390, height: 844 },
    timezoneId: 'Atlantic/Azores',
  });
  const [ben] = await person(browser, { timezoneId: 'Europe/Lisbon' });

  await step('1 enter as the teacher', async () => {
    await page.goto('/');
    await page.getByRole('button', { name: /Enter as Maren Oduya/ }).click();
    await expect(page.getByText('Coastal Navigation')).toBeVisible();
    await page.getByRole('button', { name: 'Maren Oduya' }).click();
    await page.getByRole('menuitem', { name: 'Sign out' }).click();
    await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
    await signIn(page, MAREN);
  });

  await step('2 make a course and plan it, the dates visible while typing', async () => {
    await page.getByRole('button', { name: 'New course' }).click();
    await page.getByLabel('Code').fill(code);
    await page.getByLabel('Title').fill('Reading the Tides');
    await page.getByRole('button', { name: 'Create and plan it' }).click();
    await expect(page.getByRole('heading', { name: 'A new series' })).toBeVisible();
    await page.getByRole('button', { name: 'tuesday', exact: true }).click();
    // Fifteen Tuesdays lie in the term; one of them in the reading week, one is Lantern Night.
    await expect(page.getByTestId('session-count')).toHaveText('13');
    await page.getByRole('button', { name: 'thursday', exact: true }).click();
    await expect(page.getByTestId('session-count')).toHaveText('27');
    await expect(page.getByTestId('skipped')).toContainText('Reading week');
    await expect(page.getByTestId('skipped')).toContainText('Lantern Night');
    await expect(page.getByText('36 h of teaching')).toBeVisible();
    await page.getByLabel('Linger').fill('10');
    await page.getByRole('button', { name: 'Save 27 sessions' }).click();
    await expect(page.getByText('Tue and Thu 18:30–19:50, Halifax time, 10 min to linger')).toBeVisible();
    await page.getByRole('button', { name: 'Publish Lecture' }).click();
    // Where other tests' courses meet at the same hour, what stops is said, and the question is asked.
    const published = page.getByText('draft', { exact: true });
    const anyway = page.getByRole('button', { name: 'Publish all the same' });
    await expect(async () => {
      if (await anyway.isVisible()) await anyway.click();
      await expect(published).toBeHidden({ timeout: 1000 });
    }).toPass();
    courseUrl = page.url().replace(/\/plan.*$/, '');
  });

  await step('3 import thirty people; bad rows are named and stay out', async () => {
    await page.getByRole('navigation').getByRole('link', { name: /Class/ }).click();
    await page.getByLabel('The list').fill(classList(30));
    await expect(page.getByTestId('roster-counts')).toHaveText('30 new, 0 changed, 0 not in it, 2 bad rows');
    await expect(page.getByText(/"nobody at all" is not an e-mail address/)).toBeVisible();
    await expect(page.getByText(/The same address is on line 2 already/)).toBeVisible();
    await page.getByRole('button', { name: 'Add 30 people' }).click();
    await expect(page.getByText('30 students', { exact: true })).toBeVisible();
  });

  await step('4 invite with one press; the post arrives with link and calendar entry', async () => {
    await page
      .getByRole('navigation')
      .getByRole('link', { name: /Invite/ })
      .click();
    await page.getByRole('button', { name: 'Invite 30 people' }).click();
    await page.getByRole('link', { name: 'Letters' }).click();
    await expect(page.getByText('30 of 30 sent')).toBeVisible({ timeout: 30_000 });
    for (const [student, view] of [
      ['ana', ana],
      ['ben', ben],
    ] as const) {
      await view.goto('/mailbox');
      await view.getByLabel('Search the post').fill(student);
      await view.getByRole('button', { name: `${code} Reading the Tides` }).click();
      await view
        .getByText(/^REQUEST /)
        .first()
        .click();
      const calendar = await view.getByLabel('Calendar entry').innerText();
      expect(calendar).toContain('METHOD:REQUEST');
      expect(calendar).toMatch(/RRULE:FREQ=WEEKLY;.*BYDAY=TU,TH/);
      expect(calendar).toContain('EXDATE');
      const link = view.getByRole('article').getByRole('link').first();
      links[student] = new URL((await link.getAttribute('href'))!).pathname;
      await link.click();
      await expect(view.getByRole('heading', { name: `${code} Reading the Tides` })).toBeVisible();
    }
    expect(links.ana).not.toBe(links.ben);
  });

  await step('5 limits of the course', async () => {
    await page
      .getByRole('navigation')
      .getByRole('link', { name: /Limits/ })
      .click();
    await page.getByLabel('Speak: Closed').check();
    await page.getByLabel('Show themselves: Open').check();
    await page.getByLabel('Present a screen: By hand').check();
    await page.getByLabel('Draw on the board: Closed').check();
    await page.getByLabel('Write to the class: Closed').check();
    await page.getByLabel('Write to one another: Closed').check();
    await page.getByRole('button', { name: 'Save the limits' }).click();
    const inForce = page.getByTestId('in-force');
    await expect(inForce).toContainText(
      'Closed: speak, draw on the board, write to the class, write to one another',
    );
    await expect(inForce).toContainText('By hand: present a screen');
    await expect(page.getByText(/Set by Maren Oduya/)).toBeVisible();
  });

  await step('6 recording plan', async () => {
    await page
      .getByRole('navigation')
      .getByRole('link', { name: /Recording/ })
      .click();
    await page.getByRole('button', { name: 'Save the recording plan' }).click();
    await expect(page.getByTestId('plan-in-force')).toContainText(
      'Every session is recorded from ring-in to dismissal',
    );
    await expect(page.getByTestId('plan-in-force')).toContainText('downloads are off');
  });

  await step('7 ring in; students walk in muted; sound and picture are real', async () => {
    await expect(ana.getByTestId('door')).toContainText(/The door opens/);
    await page.getByRole('navigation').getByRole('link', { name: /Teach/ }).click();
    await page.getByRole('link', { name: 'Open the room' }).click();
    await page.getByRole('button', { name: 'Ring in' }).click();
    await page.getByRole('button', { name: /^Microphone/ }).click();
    await page.getByRole('button', { name: /^Camera/ }).click();
    for (const view of [ana, ben]) {
      await view.getByRole('link', { name: 'Enter the class' }).click();
      await expect(view.getByRole('button', { name: 'Microphone: closed' })).toBeVisible();
    }
    await expect(seat(page, 'Ana Lanyon')).toHaveAttribute('data-here', 'true');
    await expect(seat(page, 'Ben Garrow')).toHaveAttribute('data-here', 'true');
    await expect(seat(page, 'Student Three')).toHaveAttribute('data-here', 'false');
    await expectPicture(ana);
    await expect(seat(ana, 'Maren Oduya')).toHaveAttribute('data-speaking', 'true', { timeout: 15_000 });
    await page.getByLabel('Write', { exact: true }).fill('Good evening, all.');
    await page.keyboard.press('Enter');
    await expect(ana.getByText('Good evening, all.')).toBeVisible();
  });

  await step('8 limits bite', async () => {
    const [forger] = await person(browser);
    await forger.goto('/mailbox');
    await limitsBite(page, ana, ben, forger, links.ben!);
  });

  await step('9 the recording runs by itself, pauses, goes on; dismissal ends everything', async () => {
    await expect(ana.getByTestId('recording-mark')).toHaveText(/Being recorded/);
    await page.getByRole('button', { name: 'Pause the recording' }).click();
    await expect(ana.getByTestId('recording-mark')).toHaveText('Recording paused');
    await page.getByRole('button', { name: 'Go on recording' }).click();
    await expect(ana.getByTestId('notice')).toHaveText('The recording goes on.');
    await page.getByLabel('Write', { exact: true }).fill('That was the pause.');
    await page.keyboard.press('Enter');
    await page.waitForTimeout(2500);
    await page.getByRole('button', { name: 'Dismiss' }).click();
    await page.getByRole('button', { name: 'Dismiss for everyone' }).click();
    for (const view of [page, ana, ben])
      await expect(view.getByRole('heading', { name: 'The class is dismissed' })).toBeVisible();
    // What she thought of it is said once, and by nobody: fewer than five are not shown.
    await ana.getByRole('radio', { name: '4', exact: true }).click();
    await ana.getByRole('textbox', { name: 'A word, if you like' }).fill('The gauge helped.');
    await ana.getByRole('button', { name: 'Say it' }).click();
    await expect(ana.getByText('You said what you thought. Thank you.')).toBeVisible();
    await ana.getByRole('link', { name: 'To the course page' }).click();
    await expect(ana.getByTestId('over')).toHaveText('Lecture 11 is over.');
    await expect(ana.getByRole('link', { name: 'Enter the class' })).toHaveCount(0);
    await ben.reload();
    await throughDoor(ben);
    await expect(ben.getByText('This class is over. The link opens again for the next one.')).toBeVisible();
    await expect(ana.locator('[data-testid=recording][data-state=ready]')).toBeVisible({ timeout: 30_000 });
  });

  await step('10 an absent student watches; a stranger and a download are refused', async () => {
    const [cleo] = await person(browser);
    await cleo.goto('/mailbox?letter=0');
    await cleo.getByLabel('Search the post').fill('cleo');
    // Whoever was absent has a second letter: that the class can be watched.
    await cleo.getByRole('button', { name: `${code} Reading the Tides` }).click();
    await cleo.getByRole('article').getByRole('link').first().click();
    await cleo.getByRole('link', { name: 'Watch' }).click();
    const sound = cleo.locator('audio');
    await expect.poll(() => sound.evaluate((a: HTMLAudioElement) => a.duration)).toBeGreaterThan(4);
    await cleo.getByRole('button', { name: 'Play', exact: true }).click();
    await expect.poll(() => sound.evaluate((a: HTMLAudioElement) => a.currentTime)).toBeGreaterThan(1);
    const seen = cleo.locator('video').first();
    await expect.poll(() => seen.evaluate((v: HTMLVideoElement) => v.videoWidth)).toBeGreaterThan(0);
    await cleo.getByRole('button', { name: /After the pause/ }).click();
    await expect(cleo.getByTestId('replayed-talk')).toContainText('Good evening, all.');
    await sound.evaluate((a: HTMLAudioElement) => {
      a.currentTime = 0;
      a.pause();
    });
    await expect(cleo.getByTestId('replayed-talk')).not.toContainText('That was the pause.');
    await expect(cleo.getByText('Downloads of this recording are off.')).toBeVisible();
    const media = new URL((await sound.getAttribute('src'))!, BASE_URL);
    const download = await cleo.request.get(media.href.replace(/media\/[^?]+/, 'export/writing.txt'));
    expect(download.status()).toBe(403);
    expect((await download.json()).error.code).toBe('download-off');

    const demo = await (await cleo.request.get('/api/demo')).json();
    const stranger = demo.links
      .find((l: { about: string }) => l.about.includes('LOG-120'))
      .path.replace('/in/', '');
    const id = cleo.url().split('/').at(-1);
    const refused = await cleo.request.get(`/api/recordings/${id}`, {
      headers: { authorization: `Link ${stranger}` },
    });
    expect(refused.status()).toBe(403);
    expect((await cleo.request.get(`/api/recordings/${id}/media/sound.webm?ticket=x`)).status()).toBe(401);
  });

  await step('11 the roll', async () => {
    await page.goto(`${courseUrl}/review`);
    await page.getByRole('link', { name: 'Lecture 11' }).click();
    const row = (name: string) => page.getByTestId('roll').getByRole('row', { name });
    await expect(row('Ana Lanyon')).toContainText('present');
    await expect(row('Ana Lanyon')).toContainText(/\d\d:\d\d/);
    await expect(row('Student Three')).toContainText('absent');
    await expect(page.getByText('2 of 30 students present, 0 late')).toBeVisible();
  });
});

async function limitsBite(page: Page, ana: Page, ben: Page, forger: Page, benLink: string) {
  // Closed: the control says why instead of doing nothing.
  await ben.getByRole('button', { name: 'Microphone: closed' }).click();
  await expect(ben.getByTestId('why-closed')).toContainText(
    'Speaking is closed for this course by Maren Oduya.',
  );
  await ben.keyboard.press('Escape');
  await forgedCommandsAreRefused(benLink, page.url().split('/').at(-1)!);
  await forgedPublishIsNotRelayed(page, forger, benLink, page.url().split('/').at(-1)!);

  // Writing opened for one question and closed again.
  await expect(ana.getByTestId('talk-closed')).toContainText(
    'Writing to the class is closed for this course',
  );
  await page.getByRole('radio', { name: 'Write to the class: Open' }).click();
  await expect(ana.getByTestId('notice')).toHaveText('Writing to the class is now open.');
  await ana.getByLabel('Write', { exact: true }).fill('Is it springs or neaps?');
  await ana.getByRole('button', { name: 'Say it' }).click();
  await expect(page.getByText('Is it springs or neaps?')).toBeVisible();
  await page.getByRole('radio', { name: 'Write to the class: Closed' }).click();
  await expect(ana.getByTestId('notice')).toHaveText('Writing to the class is now closed.');
  await expect(ana.getByTestId('talk-closed')).toContainText('closed just now by Maren Oduya');

  // Speaking open: one is muted, then all.
  await page.getByRole('radio', { name: 'Speak: Open' }).click();
  for (const view of [ana, ben]) {
    await view.getByRole('button', { name: 'Microphone: off' }).click();
    await expect(view.getByRole('button', { name: 'Microphone: on' })).toBeVisible();
  }
  await expect(seat(page, 'Ben Garrow')).toHaveAttribute('data-speaking', 'true', { timeout: 15_000 });
  expect(await soundPacketsReceived(page)).toBeGreaterThan(0);
  await seat(page, 'Ben Garrow').click();
  await page.getByRole('menuitem', { name: 'Mute' }).click();
  await expect(ben.getByRole('button', { name: 'Microphone: off' })).toBeVisible();
  await expect(ben.getByTestId('notice')).toHaveText('Maren Oduya has muted Ben Garrow.');
  await expect(ana.getByRole('button', { name: 'Microphone: on' })).toBeVisible();
  await page.getByRole('button', { name: /^Mute everyone/ }).click();
  await expect(ana.getByRole('button', { name: 'Microphone: off' })).toBeVisible();
  await expect(seat(page, 'Ben Garrow')).toHaveAttribute('data-speaking', 'false', { timeout: 15_000 });

  // By hand: a hand, the floor, and back.
  await page.getByRole('radio', { name: 'Speak: By hand' }).click();
  await ben.getByRole('button', { name: 'Raise hand' }).click();
  await page.getByRole('button', { name: 'Give the floor' }).click();
  await expect(ben.getByText('You have the floor.').first()).toBeVisible();
  await ben.getByRole('button', { name: 'Microphone: off' }).click();
  await expect(seat(page, 'Ben Garrow')).toHaveAttribute('data-speaking', 'true', { timeout: 15_000 });

  // Hush closes everything; lifting brings back exactly what was.
  const before = await floorStates(page);
  await page.locator('body').press('h');
  await expect(page.getByRole('button', { name: /Lift the hush/ })).toBeVisible();
  await expect(ben.getByRole('button', { name: 'Microphone: closed' })).toBeVisible();
  await expect(ana.getByTestId('notice')).toContainText('has hushed the room');
  await expect(seat(page, 'Ben Garrow')).toHaveAttribute('data-speaking', 'false', { timeout: 15_000 });
  expect(await floorStates(page)).not.toEqual(before);
  await page.getByRole('button', { name: /Lift the hush/ }).click();
  await expect(ben.getByRole('button', { name: 'Microphone: on' })).toBeVisible();
  expect(await floorStates(page)).toEqual(before);
  await expect(seat(page, 'Ben Garrow')).toHaveAttribute('data-speaking', 'true', { timeout: 15_000 });
  await page.getByRole('button', { name: 'Take it back' }).click();
  await expect(ben.getByRole('button', { name: 'Microphone: closed' })).toBeVisible();
}

const floorStates = (page: Page) =>
  page
    .locator('[role=radio][aria-checked=true]')
    .evaluateAll((radios) => radios.map((r) => r.getAttribute('aria-label')));

/** Commands sent without the page, as a student would forge them. */
async function forgedCommandsAreRefused(link: string, session: string) {
  const socket = io(BASE_URL, {
    path: '/live',
    transports: ['websocket'],
    auth: { link: link.replace('/in/', '') },
  });
  try {
    expect((await socket.emitWithAck('enter', { session, after: 0 })).ok).toBe(true);
    const forged = [
      { type: 'microphone', on: true },
      { type: 'setLimit', capability: 'speak', state: 'open' },
      { type: 'say', addressee: { to: 'class' }, text: 'forged' },
      { type: 'muteAll' },
      { type: 'dismiss' },
    ];
    for (const command of forged) {
      const reply = await socket.emitWithAck('command', { id: crypto.randomUUID(), command });
      expect(reply.ok, JSON.stringify(command)).toBe(false);
      expect(reply.refusal.message.length).toBeGreaterThan(10);
    }
    const nonsense = await socket.emitWithAck('command', { id: 'x', command: { type: 'rule the room' } });
    expect(nonsense.ok).toBe(false);
  } finally {
    socket.disconnect();
  }
}

/** A client of the student's own making that sends sound past every control: it reaches the relay, and nobody else. */
async function forgedPublishIsNotRelayed(page: Page, forger: Page, link: string, session: string) {
  const socket = io(BASE_URL, {
    path: '/live',
    transports: ['websocket'],
    auth: { link: link.replace('/in/', '') },
  });
  try {
    expect((await socket.emitWithAck('enter', { session, after: 0 })).ok).toBe(true);
    const offer = await forger.evaluate(async () => {
      const pc = new RTCPeerConnection();
      Object.assign(window, { forged: pc });
      const stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      pc.addTransceiver(stream.getAudioTracks()[0]!, { direction: 'sendonly' });
      pc.addTransceiver('video', { direction: 'sendonly' });
      pc.addTransceiver('video', { direction: 'sendonly' });
      await pc.setLocalDescription();
      while (pc.iceGatheringState !== 'complete') await new Promise((resolve) => setTimeout(resolve, 50));
      return pc.localDescription!.sdp;
    });
    const reply = await socket.emitWithAck('publish', { sdp: offer });
    expect(reply.ok).toBe(true);
    const sent = await forger.evaluate(async (sdp) => {
      const pc = (window as unknown as { forged: RTCPeerConnection }).forged;
      await pc.setRemoteDescription({ type: 'answer', sdp });
      await new Promise((resolve) => setTimeout(resolve, 2500));
      let packets = 0;
      (await pc.getStats()).forEach((s) => (packets += s.type === 'outbound-rtp' ? s.packetsSent : 0));
      pc.close();
      return packets;
    }, reply.sdp as string);
    expect(sent).toBeGreaterThan(50);
    expect(await soundPacketsReceived(page)).toBe(0);
    await socket.emitWithAck('unpublish', {});
  } finally {
    socket.disconnect();
  }
}

/** Keeps every peer connection a page makes, so that its statistics can be asked. */
const watchConnections = (page: Page) =>
  page.addInitScript(() => {
    const made: RTCPeerConnection[] = [];
    Object.assign(window, { madeConnections: made });
    const Original = window.RTCPeerConnection;
    window.RTCPeerConnection = new Proxy(Original, {
      construct(target, args) {
        const pc = new target(...(args as [RTCConfiguration?]));
        made.push(pc);
        return pc;
      },
    });
  });

const soundPacketsReceived = (page: Page) =>
  page.evaluate(async () => {
    let packets = 0;
    for (const pc of (window as unknown as { madeConnections: RTCPeerConnection[] }).madeConnections)
      (await pc.getStats()).forEach(
        (s) => (packets += s.type === 'inbound-rtp' && s.kind === 'audio' ? s.packetsReceived : 0),
      );
    return packets;
  });

async function expectPicture(page: Page) {
  await expect
    .poll(
      () =>
        page.evaluate(() =>
          Math.max(0, ...[...document.querySelectorAll('video')].map((v) => v.currentTime)),
        ),
      { timeout: 15_000 },
    )
    .toBeGreaterThan(0.5);
}
