import { ownerOf, type StoredEvent } from '../room/index';
import { teaches, type Role } from '../roster/role';
import type { Leavable } from '../settings/index';
import type { RecordingPlan } from './schema';
import { MARKED, PAGES_SHOWN, WORK_SHOWN } from './drawn';

/** What a plan keeps, as far as it says. */
export type KeptPlan = Pick<RecordingPlan, 'leavesOut' | 'studentsCameras' | 'tables'>;

/** Whether students’ cameras are kept: a face is a name, so not where names are left out. */
export const keepsStudents = (plan: KeptPlan | null): boolean =>
  Boolean(plan?.studentsCameras) && !plan?.leavesOut?.includes('names');

/** Whether what is said at tables is kept: students’ voices, so not where those are left out. */
export const keepsTables = (plan: KeptPlan | null): boolean =>
  Boolean(plan?.tables) && !plan?.leavesOut?.includes('studentsVoices');

/** Whether what somebody sent of a kind belongs in a recording by this plan. */
export function isKept(plan: KeptPlan | null, kind: 'sound' | 'camera' | 'screen', role: Role): boolean {
  const left = plan?.leavesOut ?? [];
  if (kind === 'screen') return !left.includes('screens');
  if (kind === 'camera') return teaches(role) ? !left.includes('teachersCameras') : keepsStudents(plan);
  return !left.includes(teaches(role) ? 'teachersVoices' : 'studentsVoices');
}

const DRAWN: ReadonlySet<StoredEvent['type']> = new Set([
  ...MARKED,
  ...WORK_SHOWN,
  ...PAGES_SHOWN,
  ...(['boardsGiven', 'leafingSet'] as const),
]);

/** What happened, as a recording tells it that is without these; students without names are numbered as they came. */
export function keptOf(events: readonly StoredEvent[], left: readonly Leavable[]): StoredEvent[] {
  if (!left.length) return [...events];
  const numbers = new Map<string, string>();
  const roles = new Map<string, Role>();
  const numbered = (member: string, role?: Role): string | null => {
    if (!left.includes('names') || (role && teaches(role))) return null;
    if (role && !numbers.has(member)) numbers.set(member, `Student ${numbers.size + 1}`);
    return numbers.get(member) ?? null;
  };
  return events.flatMap((e): StoredEvent[] => {
    if (left.includes('writing')) {
      if (e.type === 'said' || e.type === 'answered') return [];
      if ((e.type === 'answersShown' || e.type === 'tallied') && e.tally.groups)
        return [{ ...e, tally: { ...e.tally, groups: [] } }];
    }
    if (e.type === 'entered') roles.set(e.member, e.role);
    if (e.type === 'captioned') {
      if (left.includes('captions')) return [];
      // What a program heard is a voice in letters.
      const voices = teaches(roles.get(e.by) ?? 'student') ? 'teachersVoices' : 'studentsVoices';
      if (e.heard && left.includes(voices)) return [];
    }
    if (DRAWN.has(e.type) && left.includes('board')) return [];
    if (e.type === 'entered' || e.type === 'known' || e.type === 'knocked') {
      const name = numbered(e.member, e.role);
      if (!name) return [e];
      const { pronouns: _theirs, ...rest } = e as typeof e & { pronouns?: string };
      return [{ ...rest, name } as StoredEvent];
    }
    if (e.type === 'workShown') {
      const name = e.unnamed ? null : numbered(ownerOf(e.from) ?? '');
      return [name ? { ...e, title: name } : e];
    }
    if (e.type === 'renamed') {
      const name = numbered(e.member);
      return name ? [] : [e];
    }
    return [e];
  });
}
