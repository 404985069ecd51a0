import type { House, Checklist as Ticks } from '@porch/contract/house';
import { QueryClientProvider } from '@tanstack/react-query';
import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { nothingDone } from '../../../../test-kit/checklist';
import { clientForTest } from '../../../../test-kit/client';
import { Checklist } from './checklist';

const now = Date.UTC(2026, 10, 12, 10, 0);

const sighting = (site: string, isListed: boolean): Ticks['sightings'][number] => ({
  doorId: 'door-00001',
  site,
  origin: `https://${site}`,
  page: '/shop',
  at: now,
  isListed,
});

const everything: Ticks = {
  sightings: [sighting('quillfern.example', true)],
  phone: true,
  homeScreen: true,
  rings: true,
  hours: true,
  mail: true,
  answered: true,
  dressed: true,
  darkTexts: true,
  team: true,
};

const houseWith = (checklist: Ticks | null): House => ({
  isSetUp: true,
  me: { id: 'member-0001', name: 'Maren', role: 'owner', publicName: '', pictureId: null },
  business: {
    name: 'Quillfern',
    zone: 'Europe/London',
    country: 'GB',
    address: '',
    pictureId: null,
    pictureShape: 'round',
    walkStep: 'done',
  },
  team: [],
  formerDoors: [],
  doors: [
    {
      id: 'door-00001',
      publicId: 'public-0001',
      kind: 'website',
      health: { heardAt: null, failingSince: null, why: null },
      name: 'Quillfern',
      sites: ['quillfern.example'],
      snippet: '',
      link: '',
      memberIds: null,
      isClosed: false,
      plate: 'window' as const,
      can: null,
      isCarried: false,
      isOffered: null,
      isDressed: false,
    },
  ],
  checklist,
  warning: null,
  findings: [],
  deadJobs: 0,
  canMail: false,
  canWrite: true,
  now,
});

const draw = async (house: House) => {
  const client = clientForTest({ retry: false });
  client.setQueryData(['house'], house);
  await render(
    <QueryClientProvider client={client}>
      <Checklist house={house} />
    </QueryClientProvider>,
  );
};

describe('the checklist that ticks itself', () => {
  beforeEach(() => {
    jest.useFakeTimers({ now });
    global.fetch = jest.fn(async () => new Response(null, { status: 204 }));
  });
  afterEach(() => jest.useRealTimers());

  it('says what is still to do, and when it last looked', async () => {
    await draw(houseWith(nothingDone));
    expect(screen.getAllByText('To do')).toHaveLength(9);
    expect(screen.getByText('To do · Not seen yet, last looked 1 s ago')).toBeTruthy();
    expect(screen.queryByText('Done')).toBeNull();
  });

  it('says where the door was seen, and offers nothing more for what is done', async () => {
    await draw(houseWith({ ...everything, team: false }));
    expect(screen.getByText('Done · Seen on quillfern.example/shop · 10:00')).toBeTruthy();
    expect(screen.getAllByText('To do')).toHaveLength(1);
    expect(screen.queryByText('Dress it')).toBeNull();
    expect(screen.getByText('I work alone')).toBeTruthy();
  });

  it('offers to allow a website on which the door may not stand yet', async () => {
    await draw(houseWith({ ...nothingDone, sightings: [sighting('shop.example', false)] }));
    await act(async () => {
      fireEvent.press(screen.getByText('Allow shop.example'));
      await jest.advanceTimersByTimeAsync(100);
    });
    expect(global.fetch).toHaveBeenCalledWith(
      '/api/doors/door-00001',
      expect.objectContaining({
        method: 'PUT',
        body: JSON.stringify({ sites: ['quillfern.example', 'shop.example'] }),
      }),
    );
  });

  it('is gone when all is done, and for whoever has none', async () => {
    await draw(houseWith(everything));
    expect(screen.queryByText('Getting ready')).toBeNull();
    await draw(houseWith(null));
    expect(screen.queryByText('Getting ready')).toBeNull();
  });
});
