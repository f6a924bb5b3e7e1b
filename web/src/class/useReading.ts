import { useDebouncedValue } from '@mantine/hooks';
import { startTransition, useEffect, useRef, useState } from 'react';
import type { CourseDetail, MemberInfo } from '@nimble-bell/core/api';
import type { KnownMember, ListSummary } from '@nimble-bell/core/roster';
import { dateIn } from '@nimble-bell/core/calendar';
import { serverNow } from '../app/clock';
import { ListReader, type ReadOrder } from './listReader';

/** Where a class list comes from, a paste or files; its number tells it from every other. */
export interface Source {
  text: string;
  files: ReadOrder['files'];
  number: number;
}
export const NOTHING: Source = { text: '', files: [], number: 0 };

let made = 0;
export const sourceOf = (text: string, files: ReadOrder['files'] = []): Source => ({
  text,
  files,
  number: ++made,
});

/** Files as they are handed to the worker. */
export async function filesOf(files: File[]): Promise<ReadOrder['files']> {
  return Promise.all(
    files.map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) })),
  );
}

/** What there is to read; null where there is nothing. */
export function orderOf(
  course: CourseDetail,
  members: MemberInfo[],
  state: Pick<ReadOrder, 'fields' | 'mended' | 'settled' | 'rosterClass'> & { source: Source },
): ReadOrder | null {
  const { source, ...rest } = state;
  if (!source.text.trim() && !source.files.length) return null;
  const known: KnownMember[] = members.map(({ id, name, email, zone, group, extra, role, zoneOwn }) => ({
    ...{ id, name, email, zone, group, extra, role, zoneOwn },
  }));
  return {
    ...rest,
    text: source.files.length ? null : source.text,
    files: source.files,
    members: known,
    // A list for a term that is still to come is that of its first day.
    today: later(dateIn(course.term.zone, serverNow()), course.term.firstDay),
  };
}

const later = (a: string, b: string) => (a > b ? a : b);

/** The newest order read, while the one before is still shown. */
export function useReading(order: ReadOrder | null) {
  const reader = useRef<ListReader | null>(null);
  const [settledOrder] = useDebouncedValue(order, 200);
  const [state, setState] = useState<{
    order: ReadOrder | null;
    answer: ListSummary | null;
    fault: string | null;
  }>({
    order: null,
    answer: null,
    fault: null,
  });
  useEffect(() => () => reader.current?.close(), []);
  useEffect(() => {
    if (!settledOrder) return;
    let wanted = true;
    reader.current ??= new ListReader();
    reader.current.read(settledOrder).then(
      // Shown in slices: the page goes on answering meanwhile.
      (answer) => wanted && startTransition(() => setState({ order: settledOrder, answer, fault: null })),
      (error: Error) => wanted && setState({ order: settledOrder, answer: null, fault: error.message }),
    );
    return () => {
      wanted = false;
    };
  }, [settledOrder]);
  const own = () => reader.current!;
  if (!order) return { answer: null, reading: false, fault: null, reader: own };
  return { answer: state.answer, reading: state.order !== order, fault: state.fault, reader: own };
}
