import { expect, type APIRequestContext } from '@playwright/test';
import type { ListOutcome, MemberInfo } from '@nimble-bell/core/api';
import type { MadeCourse } from './course';

/** The class list as the course's teacher has it: with the links of those who do not teach. */
export const members = async (
  api: APIRequestContext,
  course: MadeCourse,
): Promise<(MemberInfo & { link: string })[]> => (await api.get(`/api/courses/${course.id}/members`)).json();
export const edit = async (
  api: APIRequestContext,
  course: MadeCourse,
  body: object,
): Promise<ListOutcome> => {
  const answer = await api.post(`/api/courses/${course.id}/members`, { data: body });
  expect(answer.ok(), await answer.text()).toBe(true);
  return answer.json();
};
