import { type Holiday, openingWhile, scheduleOf } from '../hours/opening';
import { byHours, inFrom, type LampSetting, lampAt, lightOf, lit, settingAt, takesNotes } from '.';

const soon = { state: 'back-soon', until: 1_000 } as const;

describe('a light that was told', () => {
  it('comes back by itself at the moment that was promised', () => {
    expect(lampAt(soon, 999)).toEqual(soon);
    expect(lampAt(soon, 1_000)).toEqual(lit);
  });

  it('goes out at the moment until which somebody answers', () => {
    const until = { state: 'lit', until: 1_000 } as const;
    expect(lampAt(until, 999)).toEqual(until);
    expect(lampAt(until, 1_000)).toEqual({ state: 'dark', until: null });
  });

  it('stays dark until somebody lights it', () => {
    const dark = { state: 'dark', until: null } as const;
    expect(lampAt(dark, Number.MAX_SAFE_INTEGER)).toEqual(dark);
  });

  it('takes notes exactly while it is not lit', () => {
    expect(takesNotes(lit, 0)).toBe(false);
    expect(takesNotes(soon, 999)).toBe(true);
    expect(takesNotes(soon, 1_000)).toBe(false);
    expect(takesNotes({ state: 'dark', until: null }, 0)).toBe(true);
  });
});

describe('who is in', () => {
  it('is known from when the first of them is back', () => {
    expect(inFrom([null, { until: null }], 5)).toBe(5);
    expect(inFrom([{ until: 30 }, { until: 20 }, { until: null }], 5)).toBe(20);
    expect(inFrom([{ until: null }], 5)).toBeNull();
    expect(inFrom([], 5)).toBeNull();
  });
});

describe('the light in a house with hours', () => {
  const none: Holiday[] = [];
  const day = [{ from: 540, to: 1_050 }];
  const week = [day, day, day, day, day, [], []];
  const hours = { week, holidays: null, spells: [] };
  const opening = openingWhile(scheduleOf(hours, 'Europe/London', none));
  /** November 2026 in London, whose 12th is a Thursday. */
  const at = (date: number, hour: number, minute = 0): number =>
    Date.UTC(2026, 10, date, hour, minute);
  const shown = (now: number, setting: LampSetting = byHours, somebody: number | null = now) =>
    lightOf({ setting, opening, hasHours: true, inFrom: somebody, isHere: true }, now);
  const alone = (now: number, setting: LampSetting = byHours) =>
    lightOf({ setting, opening, hasHours: true, inFrom: now, isHere: false }, now);

  it('is lit until closing, and dark until the next opening', () => {
    expect(shown(at(12, 10))).toEqual({ state: 'lit', until: at(12, 17, 30), why: 'hours' });
    expect(shown(at(12, 17, 30))).toEqual({ state: 'dark', until: at(13, 9), why: 'hours' });
    expect(shown(at(13, 18))).toEqual({ state: 'dark', until: at(16, 9), why: 'hours' });
  });

  it('is dark while nobody is in, until the first is back in open time', () => {
    const noon = at(12, 12);
    expect(shown(noon, byHours, at(12, 14))).toEqual({
      state: 'dark',
      until: at(12, 14),
      why: 'nobody-in',
    });
    expect(shown(noon, byHours, at(12, 20)).until).toBe(at(13, 9));
    expect(shown(noon, byHours, null)).toEqual({ state: 'dark', until: null, why: 'nobody-in' });
  });

  it('says of “back soon” a time at which somebody is in, or goes dark until then', () => {
    const noon = at(12, 12);
    const back = (until: number) => shown(noon, { state: 'back-soon', until });
    expect(back(at(12, 13))).toEqual({ state: 'back-soon', until: at(12, 13), why: 'hand' });
    expect(back(at(12, 17, 45))).toEqual({ state: 'dark', until: at(13, 9), why: 'hand' });
    expect(shown(at(12, 20), { state: 'back-soon', until: at(12, 21) })).toEqual({
      state: 'dark',
      until: at(13, 9),
      why: 'hours',
    });
  });

  it('stays dark by hand past a time that lies in closed hours', () => {
    expect(shown(at(12, 10), { state: 'dark', until: at(13, 9) })).toEqual({
      state: 'dark',
      until: at(13, 9),
      why: 'hand',
    });
    expect(shown(at(12, 10), { state: 'dark', until: at(12, 22) }).until).toBe(at(13, 9));
    expect(shown(at(12, 10), { state: 'dark', until: null }).until).toBeNull();
  });

  it('is lit by hand outside the hours, and goes on by the hours where the time ends within them', () => {
    expect(shown(at(12, 20), { state: 'lit', until: at(12, 21) })).toEqual({
      state: 'lit',
      until: at(12, 21),
      why: 'hand',
    });
    expect(shown(at(13, 8), { state: 'lit', until: at(13, 10) }).until).toBe(at(13, 17, 30));
    expect(shown(at(12, 20), { state: 'lit', until: null }).until).toBeNull();
    expect(shown(at(12, 20), { state: 'lit', until: null }, at(13, 7))).toMatchObject({
      state: 'dark',
      until: at(13, 9),
    });
  });

  it('goes by the hours again once the time of what was set by hand has come', () => {
    const setting: LampSetting = { state: 'dark', until: at(12, 12) };
    expect(settingAt(setting, at(12, 12) - 1)).toBe(setting);
    expect(settingAt(setting, at(12, 12))).toEqual(byHours);
    expect(shown(at(12, 12), setting)).toMatchObject({ state: 'lit', why: 'hours' });
  });

  it('is dark over an empty room, by the hours and by hand, and tells no time that nobody knows', () => {
    const nobody = { state: 'dark', until: null, why: 'nobody-here' };
    expect(alone(at(12, 10))).toEqual(nobody);
    expect(alone(at(12, 20), { state: 'lit', until: at(12, 21) })).toEqual(nobody);
    expect(alone(at(12, 20), { state: 'lit', until: null })).toEqual(nobody);
  });

  it('says by the hours and by hand when somebody is back, also while nobody is here', () => {
    expect(alone(at(12, 18))).toEqual({ state: 'dark', until: at(13, 9), why: 'hours' });
    const soonBack: LampSetting = { state: 'back-soon', until: at(12, 13) };
    expect(alone(at(12, 12), soonBack)).toMatchObject({ state: 'back-soon', until: at(12, 13) });
  });

  it('without hours is dark until a hand lights it', () => {
    const always = openingWhile(null);
    const means = { setting: byHours, opening: always, hasHours: false, inFrom: 7, isHere: true };
    expect(lightOf(means, 7)).toEqual({ state: 'dark', until: null, why: 'no-hours' });
    const forAnHour: LampSetting = { state: 'lit', until: 9 };
    expect(lightOf({ ...means, setting: forAnHour }, 7)).toEqual({ ...forAnHour, why: 'hand' });
    const soonBack: LampSetting = { state: 'back-soon', until: 9 };
    expect(lightOf({ ...means, setting: soonBack }, 7)).toMatchObject(soonBack);
  });
});
