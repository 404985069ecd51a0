// Lint, types and structure, for who runs them beside something else: what failed is written where that is told.
import { writeFileSync } from 'node:fs';
import { quickChecks, runChecks } from './checks.mjs';

const failed = runChecks(quickChecks);
writeFileSync(process.argv[2], JSON.stringify(failed));
