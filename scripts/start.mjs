// The real thing, on the data folder that DATA_DIR names (`.data` otherwise).
import { spawn } from 'node:child_process';
import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
const server = spawn('node', ['--enable-source-maps', 'server/dist/main.js'], { stdio: 'inherit' });
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 1));
