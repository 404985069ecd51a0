// The real thing, on the data folder that DATA_DIR names (`.data` otherwise).
import { spawn } from 'node:child_process';
import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
const server = spawn('node', ['--enable-source-maps', 'server/dist/main.js'], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
// npm ends the shell between us without a word to us: whoever started this is gone then, and so is its server.
const startedBy = process.ppid;
setInterval(() => {
  if (process.ppid !== startedBy) server.kill('SIGTERM');
}, 500).unref();
server.on('exit', (code) => process.exit(code ?? 1));
