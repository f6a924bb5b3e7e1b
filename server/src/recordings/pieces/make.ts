import { mkdir, readdir, rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { isKept, mixArguments, type KeptPlan, type Voice } from '@nimble-bell/core/recording';
import type { Role } from '@nimble-bell/core/roster';
import type { Context } from '../../context';
import type { Db } from '../../db/pool';
import type { TrackKind } from '../../media/relay';
import { folderOf, piecesDir, rawDir, runProgram } from '../files';
import { tracksOf } from '../store';
import { PIECE_MS } from './due';
import { cutFile, kindOf, type Unpacked } from './cut';
import { keepPiece, piecesOf, type CutPicture, type Piece } from './store';

/** A part of a recording; instants in ms, in the time in force. */
export interface PartSpan {
  id: string;
  recording: string;
  from: number;
  until: number;
}

interface Made {
  track: string;
  member: string;
  role: string;
  cut: Unpacked;
}

/** A piece's sound: whole, and as it can be heard at once. */
export const soundsOf = (folder: string, part: string, number: number) => ({
  whole: path.join(folder, `${part}-${number}.flac`),
  quick: path.join(folder, `${part}-${number}.webm`),
});

/**
 * Makes the pieces of a part that are not made yet, up to an instant: what every track sent in each minute, its voices
 * mixed, its pictures cut. One in which somebody is heard who withdrew since is made anew. Gives all of them.
 */
export async function makePieces(
  ctx: Context,
  db: Db,
  part: PartSpan,
  {
    over,
    withheld,
    plan,
    patient,
    made = () => Promise.resolve(),
  }: {
    over: boolean;
    withheld: ReadonlySet<string>;
    /** What is kept of it. */
    plan: KeptPlan | null;
    patient: boolean;
    made?: (share: number) => Promise<unknown>;
  },
): Promise<Piece[]> {
  const length = part.until - part.from;
  const count = over ? Math.max(1, Math.ceil(length / PIECE_MS)) : Math.floor(length / PIECE_MS);
  const known = new Map((await piecesOf(db, part.id)).map((p) => [p.number, p]));
  const belongs = belonging(await tracksOf(db, part.id), withheld, plan);
  const pieces: Piece[] = [];
  for (let number = 0; number < count; number++) {
    const last = over && number === count - 1;
    const until = last ? length : (number + 1) * PIECE_MS;
    let piece = known.get(number);
    const stands =
      piece?.until === until && (piece.over || !last) && piece.heard.every((m) => belongs(m, 'sound'));
    if (!piece || !stands) {
      piece = await makePiece(ctx, db, part, {
        number,
        until,
        over: last,
        withheld,
        plan,
        patient,
        before: pieces.at(-1),
      });
      await keepPiece(db, part.id, piece);
    }
    // Pictures are files of their own: those that do not belong in it any more are left where they are.
    pieces.push({ ...piece, slices: piece.slices.filter((s) => belongs(s.member, s.kind)) });
    await made((number + 1) / count);
  }
  return pieces;
}

/** Whether what somebody sent belongs in it by now: they have not withdrawn, are not forgotten, and it is not left out. */
function belonging(
  tracks: readonly { member: string; role: Role }[],
  withheld: ReadonlySet<string>,
  plan: KeptPlan | null,
) {
  const roles = new Map(tracks.map((t) => [t.member, t.role]));
  return (member: string, kind: TrackKind): boolean => {
    const role = roles.get(member);
    return role !== undefined && !withheld.has(member) && isKept(plan, kind, role);
  };
}

interface Asked {
  number: number;
  until: number;
  over: boolean;
  withheld: ReadonlySet<string>;
  plan: KeptPlan | null;
  patient: boolean;
  before: Piece | undefined;
}

async function makePiece(ctx: Context, db: Db, part: PartSpan, asked: Asked): Promise<Piece> {
  const { number, until, over, patient, before } = asked;
  const folder = await folderOf(piecesDir(ctx), part.recording);
  const work = path.join(folder, `${part.id}-${number}-work`);
  await rm(work, { recursive: true, force: true });
  await mkdir(work, { recursive: true });
  try {
    const { all, reached } = await cutAll(ctx, db, part, work, asked);
    const from = before?.until ?? 0;
    const sounds = all.filter((m) => kindOf(m.track) === 'sound');
    const voices: Voice[] = sounds.map(({ cut }) => ({ file: cut.file, offset: cut.at - from }));
    const target = soundsOf(folder, part.id, number);
    await runProgram('ffmpeg', mixArguments(until - from, voices, target), { patient });
    const slices: CutPicture[] = [];
    for (const [i, { track, member, role, cut }] of all
      .filter((m) => kindOf(m.track) !== 'sound')
      .entries()) {
      const file = path.join(folder, `${part.id}-${number}-picture-${i}.webm`);
      await rename(cut.file, file);
      const kind = kindOf(track) === 'screen' ? 'screen' : 'camera';
      slices.push({
        kind,
        ...{ member, role, track, file },
        at: cut.at,
        length: cut.length,
        goesOn: cut.goesOn,
      });
    }
    return { number, until, over, reached, heard: [...new Set(sounds.map((s) => s.member))], slices };
  } finally {
    await rm(work, { recursive: true, force: true });
  }
}

/** So many tracks are cut at once where somebody waits. */
const ABREAST = 3;

/** What each track sent. Of those who withdrew what was written before goes no further. */
async function cutAll(
  ctx: Context,
  db: Db,
  part: PartSpan,
  work: string,
  { until, over, withheld, plan, patient, before }: Asked,
): Promise<{ all: Made[]; reached: Piece['reached'] }> {
  const names = await readdir(rawDir(ctx)).catch(() => [] as string[]);
  const all: Made[] = [];
  const reached: Piece['reached'] = { ...before?.reached };
  const cutOne = async ({ base, member, role, ahead }: Awaited<ReturnType<typeof tracksOf>>[number]) => {
    if (withheld.has(member)) return;
    // A part is kept in the time in force, and the relay writes the machine's.
    const zero = part.from - Number(ahead ?? ctx.config.clockOffset);
    for (const track of names.filter((n) => n.startsWith(base) && n.endsWith('.mjr'))) {
      const kind = kindOf(track);
      if (!kind || !isKept(plan, kind, role)) continue;
      const span = { zero, until, over, patient, before: reached[track], target: path.join(work, track) };
      const cut = await cutFile(path.join(rawDir(ctx), track), span);
      if (!cut) continue;
      reached[track] = cut.reached;
      all.push(...cut.made.map((made) => ({ track, member, role, cut: made })));
    }
  };
  const tracks = await tracksOf(db, part.id);
  // Where somebody waits, two at a time; else one after the other.
  for (let i = 0; i < tracks.length; i += patient ? 1 : ABREAST)
    await Promise.all(tracks.slice(i, i + (patient ? 1 : ABREAST)).map(cutOne));
  return { all, reached };
}
