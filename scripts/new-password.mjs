// Prints a link to a new password, for an owner who forgot theirs: npm run new-password -- EMAIL
// Uses the data folder that DATA_DIR names (`.data` otherwise), also beside a running server.
import { spawnSync } from 'node:child_process';
import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
const { status } = spawnSync('node', ['server/dist/new-password.js', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
process.exit(status ?? 1);
