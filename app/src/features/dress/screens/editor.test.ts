import type { Door } from '@porch/contract/doors';
import type { Business } from '@porch/contract/house';
import type { TeamMember } from '@porch/contract/people';
import { defaultTexts } from '@porch/core/door-texts';
import { plainDress } from '@porch/core/dress';
import { newGreeting } from '@porch/core/greetings';
import { shippedCodes } from '../../doors/parts/shipped-languages';
import { previewOf, shownBusiness } from './editor';

const business: Business = {
  name: 'Quillfern',
  zone: 'Europe/London',
  country: 'GB',
  address: 'hello@quillfern.example',
  pictureId: 'picture-0001',
  pictureShape: 'round',
  walkStep: 'done',
};

const member = (id: string, change: Partial<TeamMember> = {}): TeamMember => ({
  id,
  out: null,
  name: `${id} Long`,
  role: 'helper',
  publicName: '',
  pictureId: null,
  email: '',
  hasLeft: false,
  ...change,
});

const door = (memberIds: string[] | null): Door => ({
  id: 'door-00001',
  publicId: 'public-0001',
  kind: 'website',
  health: { heardAt: null, failingSince: null, why: null },
  name: 'Front',
  sites: [],
  snippet: '',
  link: '',
  memberIds,
  isClosed: false,
  plate: 'window' as const,
  can: null,
  isCarried: false,
  isOffered: null,
  isDressed: false,
});

const team = [
  member('maren', { publicName: 'Maren', pictureId: 'face-000001' }),
  member('tobias'),
  member('gone', { hasLeft: true }),
];

describe('what the preview shows', () => {
  it('is the business with the people of this door, by their public names, without who has left', () => {
    const shown = shownBusiness(business, team, door(null), []);
    expect(shown.picture).toEqual({ url: '/pictures/picture-0001', shape: 'round' });
    expect(shown.people).toEqual([
      { name: 'Maren', face: '/pictures/face-000001' },
      { name: 'tobias Long', face: null },
    ]);
    expect(shownBusiness(business, team, door(['tobias']), []).people).toHaveLength(1);
  });

  it('is the light that was asked for, in the language that was asked for', () => {
    const nobody = { greeting: null, personOf: () => undefined };
    const at = { publicId: 'public-0001', language: 'nl', now: 1_000, ...nobody };
    const shown = shownBusiness(business, team, door(null), []);
    const soon = previewOf(plainDress(), shown, { ...at, lamp: 'soon' });
    expect(soon.configuration.lamp).toEqual({ state: 'back-soon', until: 1_000 + 45 * 60_000 });
    expect(soon.view.texts['send.lit']).toBe('Versturen');
    const dark = previewOf(plainDress(), shown, { ...at, lamp: 'dark' });
    expect(dark.configuration.lamp).toEqual({ state: 'dark', until: null });
  });

  it('is the greeting that is being written, in the name of whoever says it', () => {
    const greeting = {
      ...newGreeting('greeting-1', 'de'),
      isOn: false,
      text: 'Morning. Which fern?',
      memberId: 'tobias',
      visits: { least: 3, most: null },
    };
    const said = (
      change: object = {},
      people: 'team' | 'business' = 'team',
      shown = 'greeting-1',
    ) => {
      const dress = { ...plainDress(), people, greetings: [{ ...greeting, ...change }] };
      return previewOf(dress, shownBusiness(business, team, door(null), []), {
        publicId: 'public-0001',
        language: 'en',
        lamp: 'dark',
        now: 1_000,
        greeting: shown,
        personOf: (id) => (id === 'tobias' ? { name: 'Tobias', face: '/t' } : undefined),
      }).configuration.greetings.map(({ name, text }) => [name, text]);
    };
    expect(said()).toEqual([['Tobias', 'Morning. Which fern?']]);
    expect(said({ memberId: 'gone' })).toEqual([['Quillfern', 'Morning. Which fern?']]);
    expect(said({}, 'business')).toEqual([['Quillfern', 'Morning. Which fern?']]);
    expect(said({ text: ' ' })).toEqual([]);
    expect(said({}, 'team', 'another')).toEqual([]);
  });

  it('can be had in every language that ships', () => {
    expect([...shippedCodes].sort()).toEqual(Object.keys(defaultTexts).sort());
  });
});
