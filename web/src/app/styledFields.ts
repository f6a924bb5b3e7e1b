import { createTheme } from '@mantine/core';
import { styleNow, WEEKDAYS, type Style } from '@nimble-bell/core/calendar';

/** A day of a month, where there is little room: for a field's `valueFormat`. */
export const shortDay = () => (styleNow().order === 'month first' ? 'MMM D' : 'D MMM');

/** Fields of days and hours as the reader has them: the week's first day, the order of a date, 12 or 24 hours. */
export const fieldsFor = ({ hours, order, weekBegins }: Style) => {
  const day = order === 'month first' ? 'ddd MMM D, YYYY' : 'ddd D MMM YYYY';
  const time = hours === '12' ? 'h:mm a' : 'HH:mm';
  // Dates count from Sunday, we from Monday.
  const firstDayOfWeek = ((WEEKDAYS.indexOf(weekBegins) + 1) % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6;
  const format = hours === '12' ? '12h' : '24h';
  return createTheme({
    components: {
      DateInput: { defaultProps: { valueFormat: day, firstDayOfWeek } },
      DatePickerInput: { defaultProps: { valueFormat: day, firstDayOfWeek } },
      DateTimePicker: {
        defaultProps: { valueFormat: `${day}, ${time}`, firstDayOfWeek, timePickerProps: { format } },
      },
      TimePicker: { defaultProps: { format } },
    },
  });
};
