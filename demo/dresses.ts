import { readyColours } from '@porch/core/colours';
import { type Dress, plainDress } from '@porch/core/dress';
import { askedOften } from './asked';

export interface DemoDoor {
  id: string;
  publicId: string;
  name: string;
  /** Whom it concerns, by their place in the accounts; null: everybody. */
  members: number[] | null;
  dress: Dress;
}

const dressed = (change: (dress: Dress) => void): Dress => {
  const dress = plainDress();
  change(dress);
  return dress;
};

/** Quillfern's three doors, each dressed in its own way. */
export const demoDoors: readonly DemoDoor[] = [
  {
    id: 'door-quillfern',
    publicId: 'quillfern-front-door',
    name: 'Quillfern Nursery',
    members: null,
    dress: dressed((dress) => {
      dress.look = { ...dress.look, ...readyColours.fernery, face: 'picture' };
      dress.texts = { en: { 'sign.lit': 'Ask us anything about your plants.' } };
      dress.onAnswer = 'show';
      dress.callBack = true;
      dress.asked = askedOften;
      dress.links = [
        {
          id: 'link-find-us',
          glyph: 'map',
          label: 'Find us in Larkhope',
          url: 'https://quillfern.example/find-us',
        },
        {
          id: 'link-care-sheets',
          glyph: 'page',
          label: 'Care sheets',
          url: 'https://quillfern.example/care',
        },
      ];
    }),
  },
  {
    id: 'door-quillfern-bench',
    publicId: 'quillfern-bench-door',
    name: 'Repotting bench',
    members: [1],
    dress: dressed((dress) => {
      dress.look = {
        ...dress.look,
        ...readyColours.harbour,
        face: 'initials',
        plate: 'lintel',
        side: 'left',
        type: 'serif',
      };
      dress.where.manners = [{ pattern: '/repotting-bench', manner: 'peek', afterSeconds: 4 }];
      dress.texts = {
        en: {
          'peek.lit': 'How tall is your plant? Tobias tells you what it costs.',
          'title.lit': 'The bench is open',
          'title.dark': 'The bench is closed just now',
        },
      };
      dress.guestBook.own = [
        {
          id: 'how-tall-is-it',
          kind: 'choice',
          label: 'How tall is your plant?',
          choices: ['Up to 40 cm', 'Up to 1 m', 'Taller'],
        },
      ];
      dress.guestBook.lit = {
        when: 'before',
        asks: [
          { field: 'name', isRequired: false },
          { field: 'how-tall-is-it', isRequired: false },
        ],
      };
    }),
  },
  {
    id: 'door-quillfern-german',
    publicId: 'quillfern-german-door',
    name: 'Quillfern auf Deutsch',
    members: [0, 2],
    dress: dressed((dress) => {
      dress.look = { ...dress.look, ...readyColours.brickwork, face: 'none', plate: 'latch' };
      dress.people = 'business';
      dress.fallback = 'de';
      dress.consent = { isAsked: true, link: 'https://quillfern.example/privacy' };
    }),
  },
];
