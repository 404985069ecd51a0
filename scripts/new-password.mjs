// Prints a link to a new password, for an owner who forgot theirs: npm run new-password -- EMAIL
// Uses the data folder that DATA_DIR names (`.data` otherwise), also beside a running server.
import { runBuilt } from './set-up.mjs';

runBuilt('server/dist/new-password.js');
