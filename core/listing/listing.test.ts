import { byHours } from '../lamp';
import {
  type Availability,
  availabilityAt,
  availabilityOf,
  type Listed,
  reconcile,
  settingFor,
} from '.';

const now = Date.UTC(2026, 10, 12, 10);
const hour = 3_600_000;
const here: Availability = { isOn: true, awayUntil: null };
const away: Availability = { isOn: true, awayUntil: now + hour };
const off: Availability = { isOn: false, awayUntil: null };
const listed = (one: Availability, hours = 'Mo-Fr 09:00-17:00'): Listed => ({ ...one, hours });

describe('what a listing says', () => {
  it('is what the light shows', () => {
    expect(availabilityOf({ state: 'lit', until: now + hour })).toEqual(here);
    expect(availabilityOf({ state: 'back-soon', until: now + hour })).toEqual(away);
    expect(availabilityOf({ state: 'dark', until: now + hour })).toEqual(away);
    expect(availabilityOf({ state: 'dark', until: null })).toEqual(off);
  });

  it('is that somebody is there once the time has passed', () => {
    expect(availabilityAt(away, now + hour)).toEqual(here);
    expect(availabilityAt(away, now)).toEqual(away);
  });
});

describe('a listing and the light', () => {
  const none = { tells: false, follows: false, differed: [] };

  it('leave each other alone while they agree', () => {
    expect(reconcile(here, listed(here), listed(here))).toEqual(none);
    // A listing that tells time by the minute says the same.
    const rounded = { isOn: true, awayUntil: (away.awayUntil ?? 0) + 30_000 };
    expect(reconcile(away, listed(away), listed(rounded))).toEqual(none);
  });

  it('agree at first on what the light shows', () => {
    expect(reconcile(null, listed(here), listed(off))).toMatchObject({
      tells: true,
      follows: false,
      differed: ['chat'],
    });
  });

  it('follow whoever has changed', () => {
    expect(reconcile(here, listed(away), listed(here))).toMatchObject({
      tells: true,
      follows: false,
    });
    expect(reconcile(here, listed(here), listed(away))).toMatchObject({
      tells: false,
      follows: true,
    });
    expect(reconcile(away, listed(away), listed(here))).toMatchObject({
      tells: false,
      follows: true,
    });
  });

  it('are what the light shows where both have changed', () => {
    expect(reconcile(here, listed(away), listed(off))).toMatchObject({
      tells: true,
      follows: false,
    });
    expect(reconcile(here, listed(off), listed(off))).toMatchObject({
      tells: false,
      follows: false,
    });
  });

  it('have the hours of the house, and say where they differed', () => {
    const other = listed(here, 'Mo-Su 00:00-24:00');
    expect(reconcile(here, listed(here), other)).toEqual({
      tells: true,
      follows: false,
      differed: ['hours'],
    });
  });
});

describe('the light that follows a listing', () => {
  it('is set for as long as the listing says', () => {
    expect(settingFor(away, now, true)).toEqual({ state: 'back-soon', until: now + hour });
    const tomorrow = { isOn: true, awayUntil: now + 30 * hour };
    expect(settingFor(tomorrow, now, true)).toEqual({ state: 'dark', until: now + 30 * hour });
    expect(settingFor(off, now, true)).toEqual({ state: 'dark', until: null });
    expect(settingFor(here, now, true)).toBe(byHours);
    expect(settingFor(here, now, false)).toEqual({ state: 'lit', until: null });
  });
});
