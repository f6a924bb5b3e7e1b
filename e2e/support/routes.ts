import { expect, type Browser, type Page } from '@playwright/test';
import { throughDoor, type MadeCourse } from './course';
import { MAREN, person, signIn } from './people';
import { settled, watchRequests } from './settled';

/** A page as a test goes through all of them. */
export interface Route {
  name: string;
  path: string;
  /** Whose page it is. */
  of: 'teacher' | 'student' | 'anyone';
}

/** Every address of the product, for a course that stands. */
export const routesOf = ({ id, session, students }: MadeCourse): Route[] => {
  const course = `/course/${id}`;
  const own = students[0]!.link;
  const teacher = (name: string, path: string): Route => ({ name, path, of: 'teacher' });
  const student = (name: string, path: string): Route => ({ name, path, of: 'student' });
  return [
    teacher('Your courses', '/courses'),
    teacher('Term and bell times', '/college'),
    teacher('What holds in every course', '/college/rules'),
    teacher('Plan', `${course}/plan`),
    teacher('Week', `${course}/plan/week`),
    teacher('Zones', `${course}/plan/zones`),
    teacher('Groups', `${course}/plan/groups`),
    teacher('Calendars', `${course}/plan/calendars`),
    teacher('Reuse', `${course}/plan/reuse`),
    teacher('History of the plan', `${course}/plan/history`),
    teacher('Make up', `${course}/plan/make-up/${session}`),
    teacher('Class list', `${course}/class`),
    teacher('Invite', `${course}/invite`),
    teacher('Reminders', `${course}/invite/reminders`),
    teacher('Notices', `${course}/invite/notices`),
    teacher('Files and links', `${course}/invite/files`),
    teacher('Letters', `${course}/invite/letters`),
    teacher('Limits', `${course}/limits`),
    teacher('The door', `${course}/limits/door`),
    teacher('Limits of the term', `${course}/limits/term`),
    teacher('Run sheets', `${course}/limits/run-sheets`),
    teacher('Exceptions', `${course}/limits/exceptions`),
    teacher('Rule sheets', `${course}/limits/sheets`),
    teacher('Proof of the limits', `${course}/limits/proof`),
    teacher('As a student has it', `/as/${session}/${students[0]!.id}`),
    teacher('Recording', `${course}/recording`),
    teacher('Teach', `${course}/teach`),
    teacher('Review', `${course}/review`),
    teacher('Roll book', `${course}/review/roll-book`),
    teacher('Taking part', `${course}/review/taking-part`),
    teacher('Questions', `${course}/teach/questions`),
    teacher('What the class thought', `${course}/review/thoughts`),
    teacher('Session', `${course}/session/${session}`),
    teacher('Your ways', '/ways'),
    teacher('In class', `/room/${session}`),
    student('Your course', own),
    student('Written around a class', `${own}/written/${session}`),
    student('How you take part', `${own}/part`),
    student('Your letters', `${own}/letters`),
    student('Your ways', `${own}/ways`),
    { name: 'Listed sessions', path: '/listed', of: 'anyone' },
    { name: 'Post', path: '/mailbox', of: 'anyone' },
    { name: 'A telephone', path: '/telephone', of: 'anyone' },
    { name: 'Entrance', path: '/', of: 'anyone' },
  ];
};

/** Opens it, and is inside: its heading stands and what it asked for is there. */
export async function openRoute(page: Page, { path, name }: Route): Promise<void> {
  watchRequests(page);
  await page.goto(path);
  if (name === 'In class') await throughDoor(page);
  await expect(page.locator('h1').first()).toBeVisible();
  await settled(page);
}

/** Goes through all of them, each as whoever it belongs to. */
export async function eachRoute(
  course: MadeCourse,
  { page, browser }: { page: Page; browser: Browser },
  visit: (at: Page, route: Route) => Promise<void>,
): Promise<void> {
  await signIn(page, MAREN);
  const [student] = await person(browser);
  for (const route of routesOf(course)) await visit(route.of === 'teacher' ? page : student, route);
}
