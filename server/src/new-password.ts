import { join } from 'node:path';
import { systemClock } from './clock';
import { createServices } from './services';
import { fromEnvironment, toSettings } from './settings';
import { createStore, openBeside } from './store';

/**
 * For an owner who forgot the password: prints a link to a new one. Whoever can run this on the server
 * can read the data anyway. Works beside a running server: it adds one row that nobody remembers.
 */
const start = (): void => {
  const email = process.argv[2] ?? '';
  const settings = toSettings({ ...fromEnvironment(process.env), logLevel: 'silent' });
  const store = createStore(openBeside(join(settings.dataDir, 'porch.sqlite')));
  const { team, accounts } = createServices(settings, { clock: systemClock, store });
  const owners = store.members.all().filter(({ role, hasLeft }) => role === 'owner' && !hasLeft);
  const owner = email ? accounts.memberBy(email) : owners.length === 1 ? owners[0] : null;
  if (!owner) {
    const known = owners.map((one) => `  npm run new-password -- ${one.email}\n`).join('');
    process.stderr.write(`Whose password? Nobody was found by “${email}”. Owners:\n${known}`);
    process.exitCode = 1;
  } else {
    const origin = settings.publicOrigin ?? `http://${settings.host}:${settings.port}`;
    const { link } = team.newPasswordLinkFromServer(owner.id, origin);
    process.stdout.write(
      `A new password for ${owner.name}; the link works once, for a day:\n${link}\n`,
    );
  }
  store.close();
};

try {
  start();
} catch (error) {
  process.stderr.write(`${(error as Error).message}\n`);
  process.exitCode = 1;
}
