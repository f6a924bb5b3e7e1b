import { dayWords } from '../calendar/words';
import { leftOutWords } from './leftOut';
import type { RecordingPlan } from './plan';

/** Whether sessions are recorded, for whom and until when, as students read it. */
export function recordingWords(plan: RecordingPlan | null): string {
  if (!plan) return 'Sessions are not recorded by themselves.';
  const { leavesOut = [], automatic, studentsWatch, studentsDownload, keepUntil } = plan;
  const without = leavesOut.length ? `, without ${leftOutWords(leavesOut)}` : '';
  const made = `${automatic ? 'Sessions are recorded' : 'A session is recorded only when a teacher says so'}${without}`;
  if (!studentsWatch) return `${made}, for those who teach alone, and kept until ${dayWords(keepUntil)}.`;
  return `${made}. You can watch your own again${studentsDownload ? ', and download them,' : ''} until ${dayWords(keepUntil)}.`;
}
