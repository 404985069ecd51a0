// Puts a backup in the place of the data: npm run restore -- FILE (stop the server first)
// Uses the data folder that DATA_DIR names (`.data` otherwise).
import { runBuilt } from './set-up.mjs';

runBuilt('server/dist/restore.js');
