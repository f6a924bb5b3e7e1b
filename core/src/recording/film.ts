import { begins, followed, seconds, together, type Picture, type Stretch } from './mixing';
import { common, joined, without } from './stretches';

const CANVAS = { width: 1280, height: 720, rate: 15 };
const BLANK = `color=c=0x12352C:s=${CANVAS.width}x${CANVAS.height}:r=${CANVAS.rate}`;

/** As what a film is written: what it is encoded by. */
export const FILMS = {
  webm: [
    ...['-c:v', 'libvpx', '-deadline', 'realtime', '-cpu-used', '8', '-b:v', '900k', '-threads', '2'],
    ...['-c:a', 'copy'],
  ],
  mp4: [
    ...[
      '-c:v',
      'libx264',
      '-preset',
      'veryfast',
      '-crf',
      '26',
      '-threads',
      '2',
      '-c:a',
      'aac',
      '-b:a',
      '96k',
    ],
    ...['-movflags', '+faststart'],
  ],
} as const;
export type FilmKind = keyof typeof FILMS;

/** The board of a film, or its slides: a list of frames for ffmpeg, from when on, and when it is looked at; ms. */
export interface FilmBoard {
  list: string;
  at: number;
  shown: readonly Stretch[];
}

/** How what is seen is laid out: one large with the others in its corners, or beside it, where nothing is covered. */
export type Arrangement = 'corner' | 'beside';

export interface FilmOf {
  sound: string;
  /** ms */
  length: number;
  pictures: readonly (Picture & { file: string })[];
  board: FilmBoard | null;
  slides: FilmBoard | null;
  arrangement: Arrangement;
}

/** What ffmpeg reads of pictures that stand until the next begins, ms; the last until `length`, and beyond. */
export const standing = (frames: readonly { file: string; at: number }[], length: number): string =>
  followed([
    ...frames.map(({ file, at }, i) => ({ file, length: (frames[i + 1]?.at ?? length) - at })),
    ...frames.slice(-1).map(({ file }) => ({ file, length: 1000 })),
  ]);

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
const FULL: Box = { x: 0, y: 0, ...{ width: CANVAS.width, height: CANVAS.height } };
const small = (x: number): Box => ({ x, y: 544, width: 284, height: 160 });
const side = (y: number): Box => ({ x: 976, y, width: 288, height: 162 });
/** Where the large one is while others are beside it, and where those are: the camera, and the board beside a screen. */
const BOXES: Record<Arrangement, { large: Box; camera: Box; board: Box; slides: Box }> = {
  corner: { large: FULL, camera: small(980), board: small(680), slides: small(680) },
  beside: {
    large: { x: 8, y: 90, width: 960, height: 540 },
    camera: side(90),
    board: side(260),
    slides: side(260),
  },
};

/** One of two screens that are presented side by side: half of where one would be. */
const half = ({ x, y, width, height }: Box, second: boolean): Box => ({
  ...{ x: second ? x + width / 2 : x, y: y + height / 4 },
  ...{ width: width / 2, height: height / 2 },
});

/** When something is seen, as an expression of ffmpeg's. */
const within = (stretches: readonly Stretch[]): string =>
  stretches.map(({ from, until }) => `between(t,${seconds(from)},${seconds(until)})`).join('+');

interface Layer {
  kind: 'camera' | 'board' | 'slides' | 'screen';
  at: number;
  when: readonly Stretch[];
  input: string[];
  /** What of a camera or a screen it is. */
  picture?: Picture;
}

/** What is laid one over the other: cameras, then the board, slides and screens, each in its order in time. */
function layersOf({ pictures, board, slides }: Pick<FilmOf, 'pictures' | 'board' | 'slides'>): Layer[] {
  const order = ['camera', 'board', 'slides', 'screen'];
  const all = pictures.map(({ kind, at, length, file }): Layer => ({
    ...{ kind, at, input: ['-i', file], picture: { kind, at, length } },
    when: [{ from: at, until: at + length }],
  }));
  for (const [kind, drawn] of [
    ['board', board],
    ['slides', slides],
  ] as const)
    if (drawn)
      all.push({
        ...{ kind, at: drawn.at, when: drawn.shown },
        input: ['-f', 'concat', '-safe', '0', '-i', drawn.list],
      });
  return all.sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind) || a.at - b.at);
}

interface Placed {
  box: Box;
  when: Stretch[];
}

/** Where each layer is, and when: a screen goes before slides, those before the board, the board before a camera. */
function placesIn(layers: readonly Layer[], arrangement: Arrangement): (layer: Layer) => Placed[] {
  const of = (...kinds: Layer['kind'][]) =>
    joined(layers.filter((l) => kinds.includes(l.kind)).flatMap((l) => l.when));
  const boxes = BOXES[arrangement];
  const before = {
    camera: of('board', 'slides', 'screen'),
    board: of('slides', 'screen'),
    slides: of('screen'),
    screen: [],
  };
  // Only beside one another the large one gives way.
  const beside =
    arrangement === 'corner'
      ? { camera: [], board: [], slides: [], screen: [] }
      : {
          camera: [],
          board: of('camera'),
          slides: of('camera', 'board'),
          screen: of('camera', 'board', 'slides'),
        };
  const screens = layers.filter((l) => l.kind === 'screen');
  return (layer) => {
    const { kind, when, picture } = layer;
    const large = without(when, before[kind]);
    // Of two screens at once each has its half.
    const others = screens.filter((s) => s !== layer && picture && s.picture && together(s.picture, picture));
    const halved = common(large, joined(others.flatMap((s) => s.when)));
    const whole = without(large, halved);
    const second = others.some((s) => screens.indexOf(s) < screens.indexOf(layer));
    return [
      { box: FULL, when: without(whole, beside[kind]) },
      { box: boxes.large, when: common(whole, beside[kind]) },
      { box: half(FULL, second), when: without(halved, beside[kind]) },
      { box: half(boxes.large, second), when: common(halved, beside[kind]) },
      ...(kind === 'screen' ? [] : [{ box: boxes[kind], when: common(when, before[kind]) }]),
    ].filter((place) => place.when.length);
  };
}

/**
 * ffmpeg's arguments for one film of everything: the sound; a screen large, else the slides, else the board while it is drawn on,
 * else the camera; what is not large is in a corner or beside it.
 */
export function filmArguments(film: FilmOf, kind: FilmKind, output: string): string[] {
  const { sound, length } = film;
  const layers = layersOf(film);
  const placesOf = placesIn(layers, film.arrangement);
  const inputs = ['-i', sound, '-f', 'lavfi', '-t', seconds(length), '-i', BLANK];
  const filters: string[] = [];
  const laid = layers
    .map((layer) => ({ layer, places: placesOf(layer) }))
    .filter(({ places }) => places.length)
    .flatMap(({ layer, places }, i) => {
      inputs.push('-itsoffset', seconds(layer.at), ...layer.input);
      const names = places.map((_, n) => `[p${i}n${n}]`);
      filters.push(`[${i + 2}:v]split=${places.length}${names.join('')}`);
      return places.map((place, n) => ({ ...place, source: names[n]! }));
    });
  let canvas = '[1:v]';
  // What is large lies below, what is small over it.
  const ordered = [...laid].sort((a, b) => b.box.width - a.box.width);
  ordered.forEach(({ source, box: { x, y, width, height }, when }, i) => {
    filters.push(
      `${source}scale=${width}:${height}:force_original_aspect_ratio=decrease:force_divisible_by=2,pad=${width}:${height}:-1:-1[s${i}]`,
      `${canvas}[s${i}]overlay=${x}:${y}:eof_action=pass:enable='${within(when)}'[c${i}]`,
    );
    canvas = `[c${i}]`;
  });
  return [
    ...begins,
    ...inputs,
    ...(filters.length ? ['-filter_complex', filters.join(';'), '-map', canvas] : ['-map', '1:v']),
    ...['-map', '0:a', '-pix_fmt', 'yuv420p', ...FILMS[kind], '-t', seconds(length), output],
  ];
}
