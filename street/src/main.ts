import { openStreet } from './street';

/** The time; with CLOCK=by-hand that which the process says that started this one. */
const clockOf = (): (() => number) => {
  if (process.env.CLOCK !== 'by-hand') return Date.now;
  let at = Number(process.env.CLOCK_START);
  process.on('message', (message: { setClock?: number }) => {
    at = message.setClock ?? at;
  });
  return () => at;
};

/** The street as a process of its own. */
const start = async (): Promise<void> => {
  const street = await openStreet(process.env, clockOf());
  process.stdout.write(`the street is at ${street.origin}\n`);
  process.send?.({ listening: street.port });
  const close = async (): Promise<void> => {
    await street.close();
    process.exit(0);
  };
  process.once('SIGTERM', close);
  process.once('SIGINT', close);
};

start().catch((error) => {
  process.stderr.write(`The street could not start: ${error.message}\n`);
  process.exit(1);
});
