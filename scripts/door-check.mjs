// Looks whether somebody's own bridge keeps the open contract: npm run door-check -- URL --key whsec_...
import { runBuilt } from './set-up.mjs';

runBuilt('server/dist/door-check.js');
