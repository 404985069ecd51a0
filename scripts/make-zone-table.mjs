// Makes core/countries/generated/zones.ts from the tz database (public domain) on this machine:
// zone.tab says which zone is whose, tzdata.zi which other names a zone has.
import { readFileSync, writeFileSync } from 'node:fs';

const from = '/usr/share/zoneinfo';
const lines = (file) => readFileSync(`${from}/${file}`, 'utf8').split('\n');
const table = lines('zone.tab').filter((line) => line && !line.startsWith('#'));
const countryOf = new Map(
  table.map((line) => line.split('\t')).map(([code, , zone]) => [zone, code]),
);
const links = lines('tzdata.zi')
  .map((line) => line.split(' '))
  .filter(([kind]) => kind === 'L');

// A link may lead to a link; twice over is enough for every one there is.
for (let round = 0; round < 2; round += 1) {
  for (const [, target, name] of links) {
    const country = countryOf.get(target);
    if (country && !countryOf.has(name)) countryOf.set(name, country);
  }
}
const zones = {};
for (const [zone, country] of [...countryOf].sort()) {
  zones[country] = [...(zones[country] ?? []), zone];
}
const rows = Object.keys(zones)
  .sort()
  .map((country) => `  ${country}: '${zones[country].join(' ')}',`);
writeFileSync(
  'core/countries/generated/zones.ts',
  `/** Zones of each country with their other names: the tz database's zone.tab and links. Made by scripts/make-zone-table.mjs. */
export const zonesByCountry: Readonly<Record<string, string>> = {
${rows.join('\n')}
};
`,
);
