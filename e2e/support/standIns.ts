import { fork } from 'node:child_process';
import path from 'node:path';
import { standInClass } from '@nimble-bell/core/rehearsal';
import type { MadeCourse } from './course';
import { BASE_URL, ROOT } from './product';

/** A process of stand-ins who come to a course's session by the links of these of its students. Gives what ends it. */
export function standIns(course: MadeCourse, students: MadeCourse['students'], seed = 11): () => void {
  const child = fork(path.join(ROOT, 'server/dist/standInClass.js'), { stdio: 'ignore', execArgv: [] });
  const made = standInClass(seed, students.length);
  child.send({
    ...{ do: 'begin', url: BASE_URL, session: course.session, seed, since: 3_600_000 },
    standIns: students.map(({ link }, i) => ({ self: made[i], link: link.replace('/in/', '') })),
  });
  return () => void child.kill();
}
