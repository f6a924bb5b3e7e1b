import type { NoticeNode } from '@nimble-bell/core/api';
import { clockWords, dateIn, dateWords } from '@nimble-bell/core/calendar';
import type { Block, Piece } from '@nimble-bell/core/mail';
import type { CoursePlan } from '../calendars/entries';
import { isFor, targetOf } from '@nimble-bell/core/roster';
import type { MemberRow } from '../accounts/store';

/** A notice as a letter's blocks, its plan of the day filled in for the reader. */
export function noticeBlocks(doc: NoticeNode, plan: CoursePlan, member: MemberRow): Block[] {
  return (doc.content ?? []).flatMap((node): Block[] => {
    switch (node.type) {
      case 'heading':
        return [{ kind: 'heading', text: plain(node) }];
      case 'bulletList':
      case 'orderedList':
        return [
          { kind: 'list', items: (node.content ?? []).map(plain), ordered: node.type === 'orderedList' },
        ];
      case 'dayPlan':
        return dayBlocks(node.attrs?.date ?? '', plan, member);
      case 'blockquote':
        return noticeBlocks(node, plan, member);
      default:
        return plain(node).trim() ? [{ kind: 'text', pieces: piecesOf(node) }] : [];
    }
  });
}

/** The sessions of a local date of the term that are for this member, in the order of time. */
export const sessionsOfDay = (plan: CoursePlan, date: string, member: MemberRow) =>
  plan.sessions.filter(
    (s) => dateIn(plan.course.term.zone, s.startsAt) === date && isFor(targetOf(s), member),
  );

function dayBlocks(date: string, plan: CoursePlan, member: MemberRow): Block[] {
  const items = sessionsOfDay(plan, date, member).map((s) => {
    const times = `${clockWords(s.startsAt, member.zone)} to ${clockWords(s.endsAt, member.zone)}`;
    const title = s.title ? `${s.seriesTitle}: ${s.title}` : s.seriesTitle;
    return s.state === 'cancelled' ? `${title} is cancelled` : `${times} ${title}`;
  });
  return [
    { kind: 'heading', text: dateWords(date) },
    items.length
      ? { kind: 'list', items }
      : { kind: 'text', pieces: [{ text: 'There is no session for you on this day.' }] },
  ];
}

const plain = (node: NoticeNode): string =>
  node.type === 'hardBreak' ? '\n' : (node.text ?? (node.content ?? []).map(plain).join(''));

function piecesOf(node: NoticeNode): Piece[] {
  if (node.type === 'hardBreak') return [{ text: '\n' }];
  if (node.text === undefined) return (node.content ?? []).flatMap(piecesOf);
  const marks = node.marks ?? [];
  const link = marks.find((m) => m.type === 'link')?.attrs?.href;
  const piece: Piece = { text: node.text };
  if (link) piece.url = link;
  if (marks.some((m) => m.type === 'bold')) piece.bold = true;
  if (marks.some((m) => m.type === 'italic')) piece.italic = true;
  return [piece];
}
