// Makes a checked copy of everything, also while the server runs: npm run backup [-- FILE]
// Uses the data folder that DATA_DIR names (`.data` otherwise).
import { runBuilt } from './set-up.mjs';

runBuilt('server/dist/backup.js');
