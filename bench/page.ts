import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { cpus, totalmem } from 'node:os';

/** One figure of one run: what was measured, the baseline of the same run, and the bound. */
export type Line = { figure: string; isKept: boolean } & Readonly<Record<string, unknown>>;

/** A figure of the page: of each run one, and of what they are. */
interface Kept {
  lines: Line[];
  version: string;
  commit: string;
  day: string;
  machine: string;
}

const DATA = 'docs/bench.json';
const PAGE = 'docs/bench.md';

const git = (...args: string[]): string => execFileSync('git', args, { encoding: 'utf8' }).trim();

const versionNow = (): string => JSON.parse(readFileSync('package.json', 'utf8')).version;

const machineNow = (): string => {
  const [one] = cpus();
  const memory = Math.round(totalmem() / 2 ** 30);
  return `${cpus().length} × ${one?.model.trim() || 'unknown'}, ${memory} GB, Node ${process.versions.node}`;
};

const shownNumber = new Intl.NumberFormat('en', { maximumFractionDigits: 3 });
const shown = (value: unknown): string => {
  if (typeof value === 'number') return shownNumber.format(value);
  if (typeof value !== 'object' || value === null) return String(value);
  return Object.entries(value)
    .map(([name, inner]) => `${name} ${shown(inner)}`)
    .join(', ');
};

/** What is judged, and what the rest of a line is beside. */
const judged = ['ratio', 'more'] as const;
const apart = new Set(['figure', 'isKept', 'unit', 'atMost', 'atLeast', ...judged]);

const detailsOf = (line: Line): string =>
  Object.entries(line)
    .filter(([name]) => !apart.has(name))
    .map(([name, value]) => `${name} ${shown(value)}`)
    .join(' · ');

/** "0.38 to 0.41" over several runs, "0.4" of one. */
const rangeOf = (lines: readonly Line[]): string => {
  const name = judged.find((one) => typeof lines[0]?.[one] === 'number');
  if (!name) return '';
  const values = lines.map((line) => Number(line[name])).sort((a, b) => a - b);
  const [least, most] = [shown(values[0]), shown(values.at(-1))];
  const range = least === most ? least : `${least} to ${most}`;
  return name === 'more' ? `${range} more` : range;
};

const boundOf = ({ atMost, atLeast }: Line): string =>
  atMost !== undefined
    ? `at most ${shown(atMost)}`
    : atLeast !== undefined
      ? `at least ${shown(atLeast)}`
      : '';

const rowOf = (figure: string, kept: Kept, version: string): string => {
  const middle = kept.lines[Math.floor(kept.lines.length / 2)];
  if (!middle) return '';
  const unit = middle.unit === undefined ? '' : `, ${middle.unit}`;
  const isKept = kept.lines.every((line) => line.isKept);
  const age = kept.version === version ? '' : ` **(older: ${kept.version})**`;
  const runs = kept.lines.length > 1 ? ` (${kept.lines.length} runs)` : '';
  const cells = [
    `${figure}${unit}${age}`,
    detailsOf(middle),
    `${rangeOf(kept.lines)}${runs}`,
    boundOf(middle),
    isKept ? 'kept' : '**missed**',
    `${kept.commit}, ${kept.day}`,
  ];
  return `| ${cells.map((cell) => cell.replaceAll('|', '\\|')).join(' | ')} |`;
};

const intro = `# Measured

\`npm run bench\` measures and writes this page (\`npm run bench -- throughput jobs\` measures those alone,
\`-- --runs 5\` does it five times). It fails when a bound is missed. The baseline runs in the
same run on the same machine: for messages it is a bare \`ws\` relay that does one durable insert a
message (\`bench/bare.ts\`, the same journal settings); for the past it is the same server with a
hundredth of it; for ringing it is the push library with a plain request; for opening it is an app of the same
platform with a list of thirty rows (\`bench/bare-app\`), opened from what the browser has of it. Milliseconds differ from
machine to machine; the ratios are what is held. A figure of an older release is marked as that.
`;

const pageOf = (all: Readonly<Record<string, Kept>>): string => {
  const version = versionNow();
  const machines = [...new Set(Object.values(all).map(({ machine }) => machine))];
  const rows = Object.entries(all).map(([figure, kept]) => rowOf(figure, kept, version));
  return `${intro}
Release ${version}, on ${machines.join('; ')}.

| figure | measured (the middle run) | judged by | bound | | commit |
|---|---|---|---|---|---|
${rows.join('\n')}
`;
};

/** Puts the figures of this time into docs/bench.json, in the place of what was measured before, and writes the page anew. */
export const keepFigures = (lines: readonly Line[]): void => {
  const before: Record<string, Kept> = existsSync(DATA)
    ? JSON.parse(readFileSync(DATA, 'utf8'))
    : {};
  const facts = {
    version: versionNow(),
    commit: `${git('rev-parse', '--short', 'HEAD')}${git('status', '--porcelain') ? ' and more' : ''}`,
    day: new Date().toISOString().slice(0, 10),
    machine: machineNow(),
  };
  for (const figure of new Set(lines.map((line) => line.figure))) {
    before[figure] = { lines: lines.filter((line) => line.figure === figure), ...facts };
  }
  writeFileSync(DATA, `${JSON.stringify(before, null, 2)}\n`);
  writeFileSync(PAGE, pageOf(before));
};
