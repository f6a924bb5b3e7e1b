import { chromium, type Browser, type Page } from '@playwright/test';
import { makeCourse, throughDoor, type MadeCourse } from '../../e2e/support/course';
import config from '../../e2e/playwright.config';
import { BASE_URL } from '../../e2e/support/product';
import { teacherOf } from './room';
import { enter } from './roomLine';
import { type Figure } from './table';

const CAMERAS = 25;
const MEASURED_S = 15;
/** A camera as the product asks for it, but for its frames: 25 at once are sent by this machine too. */
const CAMERA = { width: 640, height: 480, frames: 8 };
/** A small screen, and one that has room for all of them. */
const SCREENS = [
  { width: 1280, height: 800 },
  { width: 1920, height: 1080 },
];
type Screen = (typeof SCREENS)[number];

/** A page that can make offers of a drawn camera in both sizes, and take their answers. */
async function cameraPage(browser: Browser): Promise<Page> {
  const page = await browser.newPage({ baseURL: BASE_URL });
  await page.goto('/mailbox');
  await page.evaluate(({ width, height, frames }) => {
    const canvas = Object.assign(document.createElement('canvas'), { width, height });
    const draws = canvas.getContext('2d')!;
    let n = 0;
    setInterval(() => {
      draws.fillStyle = `hsl(${(n += 5) % 360} 60% 50%)`;
      draws.fillRect((n * 7) % width, (n * 3) % height, 160, 120);
    }, 1000 / frames);
    const [track] = canvas.captureStream(frames).getVideoTracks();
    const lines: RTCPeerConnection[] = [];
    const sizes = [
      { rid: 'l', maxBitrate: 900_000 },
      { rid: 's', scaleResolutionDownBy: 3, maxBitrate: 120_000 },
    ];
    const offer = async () => {
      const line = new RTCPeerConnection();
      line.addTransceiver('audio', { direction: 'sendonly' });
      line.addTransceiver('video', { direction: 'sendonly', sendEncodings: sizes });
      line.addTransceiver('video', { direction: 'sendonly' });
      await line.setLocalDescription();
      while (line.iceGatheringState !== 'complete') await new Promise((done) => setTimeout(done, 20));
      return { n: lines.push(line) - 1, sdp: line.localDescription!.sdp };
    };
    const take = (at: number, sdp: string) => lines[at]!.setRemoteDescription({ type: 'answer', sdp });
    const send = (at: number) => lines[at]!.getTransceivers()[1]!.sender.replaceTrack(track!);
    Object.assign(window, { offer, take, send });
  }, CAMERA);
  return page;
}

/** A student whose camera is on. */
async function switchOn(page: Page, course: MadeCourse, link: string) {
  const { socket, send } = await enter(course.session, { auth: { link: link.replace('/in/', '') } });
  const { n, sdp } = await page.evaluate(() =>
    (window as unknown as { offer: () => Promise<{ n: number; sdp: string }> }).offer(),
  );
  const reply = await socket.emitWithAck('publish', { sdp });
  if (!reply.ok) throw new Error(reply.refusal.message);
  await page.evaluate(
    ([at, answer]) =>
      (window as unknown as { take: (n: number, sdp: string) => Promise<void> }).take(at, answer),
    [n, reply.sdp] as const,
  );
  // As the product's pages do: a camera is sent once it is passed on.
  const passed = new Promise((resolve) => socket.once('passed', resolve));
  await send({ type: 'camera', on: true });
  await passed;
  await page.evaluate((at) => (window as unknown as { send: (n: number) => Promise<void> }).send(at), n);
  return socket;
}

interface Wall {
  /** Faces that are shown. */
  faces: number;
  /** Received, kilobits a second. */
  kbits: number;
  /** Points of one picture as received, and as it is shown on the screen. */
  received: number;
  shown: number;
  /** Of one processor, by all of the browser, %. */
  cpu: number;
}

/** The wall of a student on a screen of this size and density. */
async function wallAt(course: MadeCourse, link: string, viewport: Screen, density = 1): Promise<Wall> {
  const browser = await chromium.launch(config.use!.launchOptions);
  try {
    const context = await browser.newContext({
      ...{ locale: 'en-GB', baseURL: BASE_URL, viewport, deviceScaleFactor: density },
    });
    // The connection that receives is kept where it can be asked.
    await context.addInitScript(() => {
      const made: RTCPeerConnection[] = [];
      const Plain = RTCPeerConnection;
      Object.assign(window, {
        made,
        RTCPeerConnection: class extends Plain {
          constructor(...of: ConstructorParameters<typeof Plain>) {
            super(...of);
            made.push(this);
          }
        },
      });
    });
    const page = await context.newPage();
    await page.goto(`${link}/room/${course.session}`);
    await throughDoor(page);
    await page.getByText('Faces', { exact: true }).click();
    const videos = page.getByRole('region', { name: 'Stage' }).locator('video');
    await page.waitForFunction(
      (count) =>
        [...document.querySelectorAll('section[aria-label=Stage] video')].filter(
          (v) => (v as HTMLVideoElement).videoWidth > 0,
        ).length >= count,
      Math.min(await videos.count(), 12),
      { timeout: 60_000 },
    );
    await page.waitForTimeout(8000);
    const client = await browser.newBrowserCDPSession();
    const spent = async () => {
      const { processInfo } = await client.send('SystemInfo.getProcessInfo');
      return processInfo.reduce((sum, p) => sum + p.cpuTime, 0);
    };
    const bytes = () =>
      page.evaluate(async () => {
        let sum = 0;
        for (const line of (window as unknown as { made: RTCPeerConnection[] }).made)
          (await line.getStats()).forEach((of: { type: string; kind?: string; bytesReceived?: number }) => {
            if (of.type === 'inbound-rtp' && of.kind === 'video') sum += of.bytesReceived ?? 0;
          });
        return sum;
      });
    const before = { bytes: await bytes(), spent: await spent() };
    await page.waitForTimeout(MEASURED_S * 1000);
    const kbits = ((await bytes()) - before.bytes) / 125 / MEASURED_S;
    const cpu = (100 * ((await spent()) - before.spent)) / MEASURED_S;
    const pictures = await videos.evaluateAll((all) =>
      (all as HTMLVideoElement[]).map((v) => ({
        received: v.videoWidth * v.videoHeight,
        shown: v.clientWidth * v.clientHeight * devicePixelRatio ** 2,
      })),
    );
    const [one] = pictures.sort((a, b) => a.received - b.received).slice(pictures.length >> 1);
    return { faces: pictures.length, kbits, cpu, ...one! };
  } finally {
    await browser.close();
  }
}

function rowsOf({ width, height }: Screen, small: Wall, large: Wall): Figure[] {
  const row = (what: string, ours: number, theirs: number, unit: string, wanted = ''): Figure => ({
    what: `a wall of ${small.faces} of ${CAMERAS} cameras at ${width}x${height}: ${what}`,
    ours: `${ours.toFixed(0)} ${unit}`,
    peer: `each received large (${large.faces} on a screen 2.5 times as dense)`,
    theirs: `${theirs.toFixed(0)} ${unit}`,
    ratio: `${(ours / theirs).toFixed(2)} to 1`,
    wanted,
  });
  return [
    row('received a second', small.kbits, large.kbits, 'kbit'),
    row('processor of the whole browser', small.cpu, large.cpu, '%'),
    {
      ...row('points received of one picture', small.received, small.shown, ''),
      peer: 'points shown of it',
      wanted: 'at most 2.25 to 1',
    },
  ];
}

/** A wall of 25 cameras as a student's screen shows it, beside the same on a screen so dense that each comes large. */
export async function wall(): Promise<Figure[]> {
  const course = await makeCourse({
    ...{ students: CAMERAS + 1, limits: { camera: 'open', seeCameras: 'open' } },
  });
  const sender = await chromium.launch(config.use!.launchOptions);
  try {
    const page = await cameraPage(sender);
    const sockets = [];
    const [watcher, ...on] = course.students;
    const teacher = await teacherOf(course);
    for (const { link } of on) sockets.push(await switchOn(page, course, link));
    const figures: Figure[] = [];
    for (const screen of SCREENS) {
      const small = await wallAt(course, watcher!.link, screen);
      const large = await wallAt(course, watcher!.link, screen, 2.5);
      figures.push(...rowsOf(screen, small, large));
    }
    await teacher.send({ type: 'dismiss' });
    for (const socket of [teacher.socket, ...sockets]) socket.disconnect();
    return figures;
  } finally {
    await sender.close();
  }
}
