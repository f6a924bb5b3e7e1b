import { readAcademicYear, readTimetable } from '@nimble-bell/core/calendar';
import { decodeText } from '@nimble-bell/core/text';
import { answerQuestions } from '../app/askWorker';
import type { CalendarOrder } from './calendarReader';

answerQuestions(({ as, given, term }: CalendarOrder) => {
  const text = typeof given === 'string' ? given : decodeText(given).text;
  return as === 'timetable' ? readTimetable(text, term) : readAcademicYear(text, term);
});
