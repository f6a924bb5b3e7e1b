import { told } from '../../app/told';
import type { Behind } from './background/messages';

/**
 * How paper under a camera is shown: turned by so many quarters, so many times nearer around a place, in fractions of it;
 * brighter than the camera has it by so many half stops; with the camera's lamp.
 */
export interface Paper {
  turn: number;
  closer: number;
  x: number;
  y: number;
  brighter: number;
  lamp: boolean;
}

/** What one presents: pages and text, which are sharp; what moves; or paper under a camera. */
export type Presents = 'sharp' | 'moving' | 'paper';

/** Which devices somebody has chosen, and what the browser does to their voice; kept on this device. */
export interface OwnDevices {
  /** Ids as the browser gives them; what is empty, the browser chooses. */
  sound: string;
  camera: string;
  speaker: string;
  /** Noise is taken out of one's voice, and what one's loudspeaker says. */
  noise: boolean;
  echo: boolean;
  presents: Presents;
  /** The camera over the paper. */
  paperCamera: string;
  paper: Paper;
  /** What is behind one in one's picture; and the picture for it, as data of an image, where one has chosen one. */
  behind: Behind;
  behindPicture: string;
  /** One does not see one's own camera; the others do. */
  hidesSelf: boolean;
  /** Faces stand beside what is presented. */
  facesBeside: boolean;
}

const KEY = 'nb-devices';
const USUAL: OwnDevices = {
  ...{ sound: '', camera: '', speaker: '', noise: true, echo: true },
  ...{
    presents: 'sharp',
    paperCamera: '',
    paper: { turn: 0, closer: 1, x: 0.5, y: 0.5, brighter: 0, lamp: false },
  },
  ...{ behind: 'plain', behindPicture: '', hidesSelf: false, facesBeside: true },
};

function kept(): OwnDevices {
  try {
    const before = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<OwnDevices>;
    return { ...USUAL, ...before, paper: { ...USUAL.paper, ...before.paper } };
  } catch {
    return USUAL;
  }
}

export const ownDevices = told<OwnDevices>(kept());

/** Chosen from now on, here and the next time. */
export function chooseDevices(more: Partial<OwnDevices>) {
  ownDevices.set({ ...ownDevices.get(), ...more });
  try {
    localStorage.setItem(KEY, JSON.stringify(ownDevices.get()));
  } catch {
    // Nothing is kept on this device: it holds until the page is left.
  }
}

const device = (id: string) => (id ? { deviceId: { ideal: id } } : {});

/** What is asked of the browser for a microphone, or a camera. */
export const wanted = (kind: 'sound' | 'camera'): MediaStreamConstraints => {
  const { sound, camera, noise, echo } = ownDevices.get();
  return kind === 'sound'
    ? { audio: { ...device(sound), noiseSuppression: noise, echoCancellation: echo } }
    : { video: { ...device(camera), width: 640, height: 480, frameRate: 20 } };
};
