import type { Spans } from '../hours/opening';

const minuteOf = (text: string): number => {
  const [hour = 0, minute = 0] = text.split(':').map(Number);
  return hour * 60 + minute;
};

/** "9:00-17:30 22:00-26:00" → spans; '' → none. */
export const spans = (text: string): Spans =>
  text === ''
    ? []
    : text.split(' ').map((span) => {
        const [from = '', to = ''] = span.split('-');
        return { from: minuteOf(from), to: minuteOf(to) };
      });
