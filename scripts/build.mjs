import { buildStale, installPackages } from './set-up.mjs';

installPackages();
buildStale();
