import type { Card, Cards } from '@porch/core/cards';
import { facts } from '@porch/street/site/facts';

const card = (id: string, question: string, answer: string, change: Partial<Card> = {}): Card => ({
  id: `asked-${id}`,
  language: 'en',
  question,
  answer,
  link: '',
  pictureIds: [],
  leads: { to: 'end' },
  ...change,
});

/** Ines, who sees to orders. */
const orders = 'member-quillfern-2';

/** What people ask Quillfern every day, as Maren has written it down. */
export const askedOften: Cards = {
  cards: [
    card(
      'hours',
      'When are you open?',
      `${facts.shopInWords}. We are shut ${facts.winterBreakInWords}.`,
    ),
    card(
      'delivery',
      'Do you deliver?',
      `Within ${facts.delivery.miles} miles of Larkhope, on ${facts.delivery.days}.`,
      {
        link: 'https://quillfern.example/delivery',
        leads: { to: 'cards', ids: ['asked-delivery-cost', 'asked-delivery-far'] },
      },
    ),
    card(
      'delivery-cost',
      'What does delivery cost?',
      `£${facts.delivery.cost}; from £${facts.delivery.freeFrom} it is free.`,
    ),
    card(
      'delivery-far',
      'I live further away',
      `Plants up to ${facts.post.centimetres} cm go by post, on ${facts.post.day}. Where would it be for?`,
      {
        leads: {
          to: 'ask',
          asks: { field: 'own', label: 'Postcode' },
          next: 'asked-delivery-post',
        },
      },
    ),
    card(
      'delivery-post',
      'How are plants packed?',
      'In a collar of straw, upright, in a box that says so. They travel for a day, two at most.',
    ),
    card(
      'yellow',
      'My plant has yellow leaves',
      '# Why leaves turn yellow\nNearly always it is water: too much of it.\n\n1. Put a finger into the soil, as deep as it goes.\n2. Where it is wet, do not water until it is dry.\n3. Where it is dry all through, stand the pot in water for ten minutes.\n\nOne old leaf now and then is as it should be. If several go at once, send us a photo.',
    ),
    card(
      'repotting',
      'What does repotting cost?',
      `Up to 40 cm £${facts.repotting.small}, up to a metre £${facts.repotting.metre}, taller ones from £${facts.repotting.tall}; the soil is included, the pot is not.`,
    ),
    card('order', 'Something about my order', 'Ines looks it up for you. Which order is it?', {
      leads: { to: 'pass', memberId: orders },
    }),
    card(
      'parking',
      'Where can I park?',
      `There are ${facts.parkingSpaces} spaces in our yard behind the glasshouse: turn in at the blue gate on Mill Lane.`,
    ),
    card(
      'pets',
      'Which plants are safe for cats?',
      '# Safe for cats\n- Spider plants and Boston ferns\n- Calatheas and prayer plants\n- Parlour palms\n\n# Better out of reach\n- Lilies, above all\n- Monsteras and philodendrons',
    ),
    card(
      'gift',
      'Do you have vouchers?',
      `We do, for any sum from £${facts.voucherFrom}, on paper or by email, and they do not run out.`,
    ),
    card(
      'holiday',
      'Who waters while I am away?',
      `# Two weeks without you\n1. Water well the evening before.\n2. Move everything out of the sun.\n3. Stand small pots in a tray with wet gravel.\n\nFor longer, bring them to us: £${facts.plantHoliday} a pot and week.`,
    ),
  ],
  first: [
    { id: 'asked-hours', states: ['lit', 'back-soon', 'dark'] },
    { id: 'asked-delivery', states: ['lit', 'back-soon', 'dark'] },
    { id: 'asked-yellow', states: ['lit', 'back-soon', 'dark'] },
    { id: 'asked-repotting', states: ['lit', 'back-soon', 'dark'] },
    { id: 'asked-order', states: ['lit'] },
    { id: 'asked-parking', states: ['back-soon', 'dark'] },
  ],
};

/** What people tapped who wrote nothing, by how many days ago. */
export const taps: readonly { daysAgo: number; cards: readonly string[] }[] = [
  { daysAgo: 19, cards: ['asked-hours'] },
  { daysAgo: 16, cards: ['asked-delivery', 'asked-delivery-cost'] },
  { daysAgo: 13, cards: ['asked-yellow'] },
  { daysAgo: 12, cards: ['asked-hours', 'asked-parking'] },
  { daysAgo: 9, cards: ['asked-repotting'] },
  { daysAgo: 6, cards: ['asked-delivery', 'asked-delivery-cost'] },
  { daysAgo: 4, cards: ['asked-hours'] },
  { daysAgo: 2, cards: ['asked-yellow'] },
];
