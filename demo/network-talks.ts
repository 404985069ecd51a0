import type { SetAside } from '@porch/core/conversation';
import { facts } from '@porch/street/site/facts';

/** What was said by other networks: by whom, how long ago, and what; a line of ours begins with "> ". */
export interface NetworkTalk {
  kind: string;
  from: string;
  name: string;
  /** How many hours ago it began. */
  hoursAgo: number;
  lines: readonly string[];
  isDone?: boolean;
  /** Of a mail: what it is about, and where pictures of it lie that are elsewhere. */
  mail?: { subject: string; pictures: readonly string[] };
  setAside?: SetAside;
}

export const networkTalks: readonly NetworkTalk[] = [
  {
    kind: 'pigeonpost',
    from: '+447700900222',
    name: 'Isolde',
    hoursAgo: 21.5,
    lines: [
      'Hello! The calathea that I bought on Saturday curls its leaves every evening. Is it dying?',
    ],
  },
  {
    kind: 'pigeonpost',
    from: '+447700900333',
    name: 'Bram',
    hoursAgo: 0.1,
    lines: ['Are you still at the market in Larkhope on Sunday, or only at the nursery?'],
  },
  {
    kind: 'pigeonpost',
    from: '+447700900123',
    name: 'Rosa',
    hoursAgo: 200,
    lines: [
      'Do you deliver to Upper Larkhope?',
      `> We do, on ${facts.delivery.days}. It is free from £${facts.delivery.freeFrom}.`,
      'Perfect, then I take the two ferns',
      '> They are on the van on Friday.',
    ],
    isDone: true,
  },
  {
    kind: 'text',
    from: '+447700900123',
    name: '',
    hoursAgo: 3,
    lines: ['Hi, Rosa here. Is my second fern coming with Friday’s van too?'],
  },
  {
    kind: 'text',
    from: '+447700900456',
    name: '',
    hoursAgo: 52,
    lines: [
      'Is the bench open on Thursday?',
      `> Yes, ${facts.benchInWords}. Bring the pot that you like.`,
      'Thanks, see you then',
    ],
    isDone: true,
  },
  {
    kind: 'wavelet',
    from: 'old-oak-cafe',
    name: 'Old Oak Café',
    hoursAgo: 30,
    lines: ['We would like six hanging plants for the café. Do you rent them out as well?'],
  },
  {
    kind: 'wavelet',
    from: 'marit.k',
    name: 'Marit K.',
    hoursAgo: 120,
    lines: [
      'What was the name of the silvery one in your window?',
      '> Scindapsus ‘Silver Ann’. We have four of them.',
    ],
  },
  {
    kind: 'tintype',
    from: 'leaf.by.leaf',
    name: 'Leaf by leaf',
    hoursAgo: 5,
    lines: ['May I come and take pictures in the palm house for my page?'],
  },
  {
    kind: 'tintype',
    from: 'hanne_makes',
    name: 'Hanne',
    hoursAgo: 70,
    lines: [
      'That terrarium! Do you sell the glass without plants?',
      '> We do: 18 pounds for the round one, 24 for the tall one.',
      'I come by on Saturday',
    ],
    isDone: true,
  },
  {
    kind: 'mail',
    from: 'ada.lindqvist@post.example',
    name: 'Ada Lindqvist',
    hoursAgo: 1.2,
    lines: [
      'Dear Quillfern,\n\nwe marry on the 22nd of May in the barn at Larkhope, and would love ferns along the aisle: twenty or so, about knee-high. Could we borrow them for the day? The barn is on the picture.\n\nAda and Jonas',
    ],
    mail: { subject: 'Ferns for a wedding', pictures: ['/pictures/barn.png'] },
  },
  {
    kind: 'mail',
    from: 'news@growers-weekly.example',
    name: 'Growers’ Weekly',
    hoursAgo: 28,
    lines: ['This week: mild nights, cheap peat-free compost, and ten ferns for deep shade.'],
    mail: { subject: 'Growers’ Weekly, number 47', pictures: [] },
    setAside: 'automatic',
  },
  {
    kind: 'townfinder',
    from: 'tf-1203',
    name: 'Jem from the bakery',
    hoursAgo: 26,
    lines: [
      'Are you open on St Andrew’s Day?',
      '> We are, as on any other day.',
      'Lovely, I bring the trolley',
    ],
    isDone: true,
  },
];
