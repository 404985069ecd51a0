import type { Checklist, House } from '@porch/contract/house';
import { nothingDone } from '../../../../test-kit/checklist';
import { stepsLeft } from './steps-left';

const seen = { doorId: 'door', site: 'a.example', origin: 'https://a.example', page: '/', at: 1 };
const houseWith = (checklist: Checklist | null) =>
  ({ checklist, doors: [{ id: 'door', isCarried: false }] }) as unknown as House;
const left = (part: Partial<Checklist>) =>
  stepsLeft(houseWith({ ...nothingDone, ...part })).map(({ step }) => step);

describe('what is left of setting up', () => {
  it('is every step in a new house, hours first, each with its own place', () => {
    const all = stepsLeft(houseWith(nothingDone));
    expect(all).toHaveLength(Object.keys(nothingDone).length);
    expect(all[0]).toEqual({ step: 'hours', to: '/house/hours' });
    expect(new Set(all.map(({ to }) => to)).size).toBe(all.length);
  });

  it('loses each step once that is done', () => {
    for (const step of Object.keys(nothingDone).filter((one) => one !== 'sightings')) {
      expect(left({ [step]: true })).not.toContain(step);
    }
    expect(left({ sightings: [{ ...seen, isListed: true }] })).not.toContain('snippet');
  });

  it('keeps the snippet that was seen where it may not stand', () => {
    expect(left({ sightings: [{ ...seen, isListed: false }] })).toContain('snippet');
  });

  it('is nothing for whoever is no owner', () => {
    expect(stepsLeft(houseWith(null))).toEqual([]);
  });
});
