import type { TeamLamp } from '@porch/contract/lamp';
import { lampAhead } from '../data/lamp';
import { lampInWords } from './in-words';

/** Thursday 12 November 2026, 10:00 in London. */
const now = Date.UTC(2026, 10, 12, 10);
const hour = 3_600_000;
const zone = 'Europe/London';
const open: TeamLamp = {
  state: 'lit',
  until: now + 7.5 * hour,
  why: 'hours',
  setting: { state: 'by-hours', until: null },
  hasHours: true,
  isOpen: true,
  shutsNext: now + 7.5 * hour,
  opensNext: now + 23 * hour,
  opensTomorrow: now + 23 * hour,
  ask: null,
  ended: null,
};
const said = (part: Partial<TeamLamp>, at = now) => lampInWords({ ...open, ...part }, at, zone);

describe('the light in words', () => {
  it('says until when, and why', () => {
    expect(said({})).toEqual({
      state: 'lit',
      saying: 'Answering until 17:30',
      under: 'Porch light · lit, by the hours',
    });
    expect(said({ state: 'back-soon', until: now + 4 * hour, why: 'hand' }).saying).toBe(
      'Back at 14:00',
    );
    expect(said({ state: 'dark', until: open.opensNext }).saying).toBe('Dark until Fri 09:00');
  });

  it('says what is known where no time is', () => {
    const dark = { state: 'dark', until: null } as const;
    expect(said({ ...dark, why: 'hand' }).saying).toBe('Dark until you light it');
    expect(said({ ...dark, why: 'nobody-in' }).saying).toBe('Dark until somebody is in');
    expect(said({ ...dark, why: 'hours' }).saying).toBe('Dark, no opening in sight');
    expect(said({ until: null }).saying).toBe('Answering now');
    expect(said({ ...dark, why: 'nobody-here' })).toMatchObject({
      saying: 'Off: no one is here',
      under: 'Porch light · dark, no app open, no phone rings',
    });
    expect(said({ ...dark, why: 'no-hours', hasHours: false })).toMatchObject({
      saying: 'Off: hours not set',
      under: 'Porch light · dark, no hours yet',
    });
  });

  it('goes out when its time has come, before the house has said so', () => {
    expect(said({}, now + 8 * hour).state).toBe('dark');
  });

  it('says what was set by hand and has ended', () => {
    expect(said({ ended: { state: 'back-soon', at: now } }).under).toBe('“Back soon” has ended');
  });
});

describe('the light before the house has answered', () => {
  it('shows what was set, and by the hours what they say', () => {
    const soon = { state: 'back-soon', until: now + hour } as const;
    expect(lampAhead(open, soon)).toMatchObject({ ...soon, why: 'hand' });
    const again = { state: 'by-hours', until: null } as const;
    expect(lampAhead({ ...open, ...soon }, again)).toMatchObject({
      state: 'lit',
      until: open.shutsNext,
      why: 'hours',
    });
    expect(lampAhead({ ...open, isOpen: false }, again)).toMatchObject({
      state: 'dark',
      until: open.opensNext,
    });
  });
});
