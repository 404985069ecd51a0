import { type Choosing, takesIn } from '../page-rules';
import { zonesByCountry } from './generated/zones';

/** ISO 3166-1 code of two letters. */
export type Country = string;

/** The countries of the tz database's zone table. */
export const countries: readonly Country[] = Object.keys(zonesByCountry);

const zonesOf = (country: Country): string[] => zonesByCountry[country]?.split(' ') ?? [];

const countryByZone = new Map(
  countries.flatMap((country) => zonesOf(country).map((zone) => [zone, country] as const)),
);

/** In which country clocks show a zone's time, by the tz database's zone table. "Europe/London" → "GB", "UTC" → null. */
export const countryOfZone = (zone: string): Country | null => countryByZone.get(zone) ?? null;

/** Which time zones a choosing of countries comes to: what a website's page can check by itself. */
export const zonesFor = (chosen: Choosing): Choosing => ({
  mode: chosen.mode,
  these: chosen.mode === 'all' ? [] : chosen.these.flatMap(zonesOf),
});

/** Whether a visitor whose browser states a zone is in one of the chosen countries. */
export const isInCountries = (zones: Choosing, zone: string): boolean =>
  takesIn(zones, (one) => one === zone);
