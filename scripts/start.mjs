// The real thing, on the data folder that DATA_DIR names (`.data` otherwise).
import { spawn } from 'node:child_process';
import { ownFiles } from './own-files.mjs';
import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
const { main, env } = ownFiles();
const server = spawn('node', ['--enable-source-maps', main], {
  stdio: 'inherit',
  env: { ...process.env, ...env },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
// npm ends the shell between us without a word to us: whoever started this is gone then, and so is its server.
const startedBy = process.ppid;
setInterval(() => {
  if (process.ppid !== startedBy) server.kill('SIGTERM');
}, 500).unref();
server.on('exit', (code) => process.exit(code ?? 1));
