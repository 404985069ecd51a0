import { type Asked, askCalendar } from './calendar';

/** A process of its own that finds out holidays once, and ends. */
process.once('message', async (asked: Asked) => {
  const calendar = await askCalendar(asked).catch(() => null);
  process.send?.(calendar, () => process.exit(0));
});
process.on('disconnect', () => process.exit(0));
