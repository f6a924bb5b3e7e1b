import { chromium, type Page } from '@playwright/test';
import { account, makeCourse, throughDoor } from '../../e2e/support/course';
import { MAREN, signIn } from '../../e2e/support/people';
import config from '../../e2e/playwright.config';
import { BASE_URL } from '../../e2e/support/product';
import { ms, type Figure } from './table';

const CLASS_MS = 60_000;

const firstFrame = (page: Page) =>
  page.waitForFunction(() =>
    [...document.querySelectorAll('video')].some((v) => v.getVideoPlaybackQuality().totalVideoFrames > 0),
  );

/** Two connections inside one page, no server between: the least that a first frame can take here. */
const bareFirstFrame = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const stream = await navigator.mediaDevices.getUserMedia({ video: { width: 640, height: 480 } });
    const began = performance.now();
    const [from, to] = [new RTCPeerConnection(), new RTCPeerConnection()];
    from.onicecandidate = (e) => void to.addIceCandidate(e.candidate ?? undefined);
    to.onicecandidate = (e) => void from.addIceCandidate(e.candidate ?? undefined);
    const video = document.createElement('video');
    video.muted = true;
    const shown = new Promise<void>((resolve) => video.requestVideoFrameCallback(() => resolve()));
    to.ontrack = (e) => {
      video.srcObject = new MediaStream([e.track]);
      void video.play();
    };
    from.addTrack(stream.getVideoTracks()[0]!, stream);
    await from.setLocalDescription();
    await to.setRemoteDescription(from.localDescription!);
    await to.setLocalDescription();
    await from.setRemoteDescription(to.localDescription!);
    await shown;
    const took = performance.now() - began;
    from.close();
    to.close();
    stream.getTracks().forEach((t) => t.stop());
    return took;
  });

export async function media(): Promise<Figure[]> {
  const course = await makeCourse({ record: true, limits: { writeToClass: 'open' } });
  const browser = await chromium.launch(config.use!.launchOptions);
  const context = () =>
    browser.newContext({
      locale: 'en-GB',
      baseURL: BASE_URL,
      permissions: ['camera', 'microphone'],
      viewport: { width: 1280, height: 800 },
    });
  try {
    const teacher = await (await context()).newPage();
    const student = await (await context()).newPage();
    await signIn(teacher, MAREN);
    await student.goto('/mailbox');
    const bare = await bareFirstFrame(student);

    await teacher.goto(`/room/${course.session}`);
    await throughDoor(teacher);
    await teacher.getByRole('button', { name: /^Camera/ }).click();
    await teacher.getByRole('button', { name: /^Microphone/ }).click();
    await student.goto(course.students[0]!.link);
    const enter = student.getByRole('link', { name: 'Enter the class' });
    await teacher.waitForTimeout(2000);
    const rang = performance.now();
    await teacher.getByRole('button', { name: 'Ring in' }).click();
    await enter.click();
    const entered = performance.now();
    await firstFrame(student);
    const seen = performance.now();

    await teacher.waitForTimeout(CLASS_MS - (seen - rang));
    await teacher.getByRole('button', { name: 'Dismiss' }).click();
    await teacher.getByRole('button', { name: 'Dismiss for everyone' }).click();
    const dismissed = performance.now();
    const api = await account(MAREN);
    const recording = async () =>
      (await (await api.get(`/api/sessions/${course.session}`)).json()).recordings[0];
    while ((await recording()).state !== 'ready') await teacher.waitForTimeout(50);
    await teacher.goto(`/course/${course.id}/watch/${(await recording()).id}`);
    await teacher.waitForFunction(() => (document.querySelector('video')?.readyState ?? 0) >= 3);
    const playable = performance.now();
    const length = await teacher.evaluate(() => document.querySelector('video')!.duration);
    const row = (what: string, took: number, peer: string, theirs: number, wanted = ''): Figure => ({
      what,
      ours: ms(took),
      peer,
      theirs: ms(theirs),
      ratio: `${(took / theirs).toFixed(2)} to 1`,
      wanted,
    });
    return [
      row(
        'ring-in to the first frame in a second browser',
        seen - rang,
        'two bare connections in one page',
        bare,
      ),
      row(
        'of it, from pressing Enter to the frame',
        seen - entered,
        'two bare connections in one page',
        bare,
      ),
      row(
        `dismissal to a playable recording of ${length.toFixed(0)} s`,
        playable - dismissed,
        'limit',
        10_000,
        'at most 1 to 1',
      ),
    ];
  } finally {
    await browser.close();
  }
}
