import type { Response } from 'express';
import { writtenLines, writtenText, type Watcher } from '@nimble-bell/core/recording';
import { writeCsv } from '@nimble-bell/core/roster';
import type { Context } from '../../context';
import type { RecordingRow } from '../store';
import { toldTo } from '../told';

/** As what its writing is taken along, at once. */
export const WRITINGS = ['writing.txt', 'writing.csv'] as const;

interface Asked {
  row: RecordingRow;
  zone: string;
  watcher: Watcher;
  /** What the file is called, without its ending. */
  name: string;
}

export async function sendWriting(
  ctx: Context,
  kind: (typeof WRITINGS)[number],
  { row, zone, watcher, name }: Asked,
  res: Response,
): Promise<void> {
  const { events, parts } = await toldTo(ctx.db, row, watcher);
  const lines = writtenLines(parts, events);
  res.attachment(`${name}.${kind.split('.')[1]}`);
  if (kind === 'writing.txt') res.type('text/plain; charset=utf-8').send(writtenText(lines, zone));
  else
    res.type('text/csv; charset=utf-8').send(
      `\uFEFF${writeCsv(
        ['When', 'Seconds into the recording', 'Who', 'What'],
        lines.map((l) => [new Date(l.at).toISOString(), String(Math.round(l.position / 1000)), l.by, l.text]),
      )}`,
    );
}
