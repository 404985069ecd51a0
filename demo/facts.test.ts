import { facts } from '@porch/street/site/facts';
import { sitePages } from '@porch/street/site/page';
import { askedOften } from './asked';
import { demoGreetings } from './greetings';
import { networkTalks } from './network-talks';
import { quickReplies } from './quick-replies';
import { demoThings } from './shelf';
import { notes, threads, waiting } from './threads';

const now = Date.UTC(2026, 10, 12, 10, 0, 0);

/** All that Quillfern says anywhere, and who says it. */
const said: readonly (readonly [where: string, text: string])[] = [
  ...quickReplies.map(({ title, text }) => [`quick reply ${title}`, text] as const),
  ...askedOften.cards.map(({ question, answer }) => [question, `${question} ${answer}`] as const),
  ...[...threads, ...notes, ...waiting, ...networkTalks.map(({ lines }) => lines)].flatMap(
    (lines) => {
      const [asked = ''] = lines;
      return lines
        .filter((line) => line.startsWith('> '))
        .map((line) => [`answer to ${asked}`, `${asked} ${line}`] as const);
    },
  ),
  ...demoThings(now).map(
    ({ thing }) =>
      [
        `shelf ${thing.name}`,
        `${thing.name} ${thing.text} ${thing.hours} £${thing.price}`,
      ] as const,
  ),
  ...sitePages.map(
    ({ title, lead, body }) => [`page ${title}`, [lead, ...body].join(' ')] as const,
  ),
  ...demoGreetings.map(({ greeting }) => [`greeting ${greeting.id}`, greeting.text] as const),
];

/** Everywhere that something is claimed: where, and what is said there. */
const claims = (claim: RegExp, about = /./): (readonly [string, string])[] =>
  said
    .filter(([, text]) => about.test(text))
    .flatMap(([where, text]) =>
      [...text.matchAll(claim)].map((found) => [where, found[1] ?? found[2] ?? ''] as const),
    );

const { delivery, repotting } = facts;
const number = '£?(\\d+(?:\\.\\d\\d)?|one|two|four|six|ten|fifteen)';

describe('what Quillfern says of itself', () => {
  it.each<[string, RegExp, RegExp, number, readonly string[]]>([
    [
      'from when delivery is free',
      new RegExp(`free from ${number}|from ${number} it is free`, 'g'),
      /./,
      4,
      [`${delivery.freeFrom}`],
    ],
    [
      'how far the van goes',
      new RegExp(`within ${number} miles`, 'gi'),
      /./,
      3,
      [`${delivery.miles}`],
    ],
    ['what delivery costs', /£(\d+\.\d\d)/g, /deliver|free from/i, 3, [delivery.cost]],
    ['the days on which the van goes', /on (\w+days and \w+days)/g, /./, 4, [delivery.days]],
    [
      'what repotting costs',
      /£(\d+)/g,
      /(?<!off )repotting.*£/i,
      6,
      [repotting.small, repotting.metre, repotting.tall].map(String),
    ],
    ['how many cars may stand', new RegExp(`${number} (?:spaces|places in)`, 'gi'), /./, 4, ['6']],
    [
      'the days on which it is open',
      /(Mon(?:day)?(?: to |–)\w+|Tue(?:sday)?(?: to |–)\w+)/g,
      /^(?!.*bench)/is,
      3,
      ['Monday to Friday', 'Mon–Fri'],
    ],
    ['the days of the bench', /(\w+day to \w+day)/g, /bench/i, 3, ['Tuesday to Saturday']],
    ['until when it is shut in winter', /shut (from [^.]+)\./g, /./, 2, [facts.winterBreakInWords]],
    ['how tall a plant goes by post', /(\d+) cm/g, /by post/, 3, [`${facts.post.centimetres}`]],
  ])('agrees everywhere on %s', (_what, claim, about, least, right) => {
    const found = claims(claim, about);
    expect(found.length).toBeGreaterThanOrEqual(least);
    expect(found.filter(([, value]) => !right.includes(value))).toEqual([]);
  });
});
