import type { MemberInfo } from '@nimble-bell/core/api';
import { inListOrder } from './order';
import { useAsked } from './queries';

const ordered = (members: MemberInfo[]) => inListOrder(members);

/** Everybody on a course's class list, in its order. */
export const useMembers = (course: string) =>
  useAsked<MemberInfo[]>(`/courses/${course}/members`, { select: ordered });
