import { keep } from '@porch/client/keeping';
import { problemInThing } from '@porch/core/shelf';
import { fern, offer, onShelf, slots } from '@porch/core/test-kit/shelf';
import { draftOf, emptyDraft, shelfDrafts, toThing } from './draft';

const london = { zone: 'Europe/London', currency: 'GBP' };
const shown = (thing: (typeof onShelf)[number]) => ({
  ...thing,
  id: 'thing-000001',
  picture: null,
  revision: 1,
  changedAt: 0,
  isOver: false,
});

describe('something on the shelf while it is written', () => {
  it('stays what it is where nothing is changed, of every kind', () => {
    for (const thing of onShelf) {
      expect(toThing(draftOf(shown(thing), london.zone), london)).toEqual(thing);
    }
  });

  it('has its price in the money of the place, or in the one that was typed', () => {
    const typed = (money: string) => toThing({ ...emptyDraft('item'), money }, london);
    expect(typed('24,50')).toMatchObject({ price: '24.50', currency: 'GBP' });
    expect(typed('12 EUR')).toMatchObject({ price: '12', currency: 'EUR' });
    expect(typed('')).toMatchObject({ price: '', currency: '' });
    // What is none goes to the house as it is, which refuses it beside its field.
    expect(typed('a lot').price).toBe('a lot');
  });

  it('ends with the last moment of its last day, by the clocks of the business', () => {
    const typed = (lastDay: string) => toThing({ ...emptyDraft('offer'), lastDay }, london).until;
    expect(typed('2026-07-01')).toBe(Date.UTC(2026, 6, 1, 22, 59, 59, 999));
    expect(typed('')).toBeNull();
    const draft = draftOf(shown(offer), london.zone);
    expect(toThing({ ...draft, lastDay: '2026-11-20' }, london).until).toBe(
      Date.UTC(2026, 10, 20, 23, 59, 59, 999),
    );
  });

  it('leaves out times that are half picked', () => {
    const draft = draftOf(shown(slots), london.zone);
    const starts = [...draft.starts, { day: '2026-12-01', time: '' }];
    expect(toThing({ ...draft, starts }, london).starts).toEqual(slots.starts);
  });

  it('has minutes that the house refuses where they are none that it takes', () => {
    const problem = (minutes: string) =>
      problemInThing(toThing({ ...draftOf(shown(slots), london.zone), minutes }, london), false);
    expect(['', ' 45 ', '0'].map(problem)).toEqual([null, null, null]);
    for (const minutes of ['long', '-5', '1.5e9', '2000']) {
      expect(problem(minutes)).toMatchObject({ field: 'minutes', why: 'wrong' });
    }
  });

  it('stays on this device until it is saved, and nonsense there is no draft', () => {
    const draft = draftOf(shown(fern), london.zone);
    shelfDrafts.write('thing-000001', draft);
    expect(shelfDrafts.read('thing-000001')).toEqual(draft);
    shelfDrafts.drop('thing-000001');
    expect(shelfDrafts.read('thing-000001')).toBeNull();
    keep('porch:shelf-draft:thing-000001', '{"half');
    expect(shelfDrafts.read('thing-000001')).toBeNull();
    keep('porch:shelf-draft:thing-000001', '{"old":1}');
    expect(shelfDrafts.read('thing-000001')).toBeNull();
  });
});
