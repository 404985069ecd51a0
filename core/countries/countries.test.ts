import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { getTimezone } from 'countries-and-timezones';
import { countries, countryOfZone, isInCountries, zonesFor } from '.';

describe('in which country clocks show a zone’s time', () => {
  it('is what the tz database’s zone table says of every zone (IANA tz database, zone.tab)', () => {
    const rows = readFileSync(join(__dirname, 'test/zone.tab'), 'utf8')
      .split('\n')
      .filter((line) => line && !line.startsWith('#'))
      .map((line) => line.split('\t'));
    expect(rows.length).toBeGreaterThan(400);
    for (const [country, , zone] of rows)
      expect([zone, countryOfZone(zone ?? '')]).toEqual([zone, country]);
    expect(new Set(rows.map(([country]) => country))).toEqual(new Set(countries));
  });

  it('knows the names that browsers still state, as countries-and-timezones does', () => {
    for (const zone of [
      'Asia/Calcutta',
      'Europe/Kiev',
      'America/Buenos_Aires',
      'US/Pacific',
      'Europe/Belfast',
    ]) {
      expect(getTimezone(zone)?.countries).toContain(countryOfZone(zone));
    }
    expect(countryOfZone('UTC')).toBeNull();
    expect(countryOfZone('Nowhere/At all')).toBeNull();
  });

  it('turns countries to zones that a page can check by itself', () => {
    const british = zonesFor({ mode: 'only', these: ['GB', 'IE'] });
    expect(isInCountries(british, 'Europe/London')).toBe(true);
    expect(isInCountries(british, 'Europe/Dublin')).toBe(true);
    expect(isInCountries(british, 'Europe/Paris')).toBe(false);
    expect(isInCountries(british, 'UTC')).toBe(false);
    const notFrench = zonesFor({ mode: 'except', these: ['FR'] });
    expect(isInCountries(notFrench, 'Europe/Paris')).toBe(false);
    expect(isInCountries(notFrench, 'UTC')).toBe(true);
    expect(isInCountries(zonesFor({ mode: 'all', these: ['FR'] }), 'UTC')).toBe(true);
  });
});
