import { parseArgs } from 'node:util';
import { conformance } from './doors/bridge/conformance';

const usage = `Looks whether a bridge keeps the open contract (docs/doors.md):

  npm run door-check -- URL --key whsec_... [--to SOMEBODY] [--port 4999] [--wait 20]

  URL      where the bridge takes what the door asks
  --key    the key that both have
  --to     to whom on its network a test message may go
  --port   where this plays the door: let the bridge hand over to http://127.0.0.1:4999/in/check
  --wait   how many seconds something that the bridge does by itself may take
`;

/** What was typed; null: something that this does not know. */
const typed = () => {
  try {
    return parseArgs(known);
  } catch {
    return null;
  }
};

const known = {
  allowPositionals: true,
  options: {
    help: { type: 'boolean', short: 'h', default: false },
    key: { type: 'string' },
    to: { type: 'string', default: 'test' },
    port: { type: 'string', default: '4999' },
    wait: { type: 'string', default: '20' },
  },
} as const;
const { values, positionals } = typed() ?? { values: null, positionals: [] };
const [url] = positionals;
if (values?.help || !values?.key || !url || !URL.canParse(url)) {
  process.stdout.write(usage);
  process.exit(values?.help ? 0 : 2);
}

let wrongs = 0;
const { key, to, port, wait } = values;
const checked = { url, key, to, port: Number(port), waitMs: Number(wait) * 1_000 };
for await (const { what, wrong } of conformance(checked)) {
  if (wrong !== null) wrongs += 1;
  process.stdout.write(wrong === null ? `passes  ${what}\n` : `FAILS   ${what}: ${wrong}\n`);
}
process.stdout.write(wrongs === 0 ? 'All of it is kept.\n' : `${wrongs} of it is not kept.\n`);
process.exit(wrongs === 0 ? 0 : 1);
