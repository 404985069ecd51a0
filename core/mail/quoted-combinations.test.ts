import { partReply } from '.';

// Every combination of these, so that no shape is missing because nobody thought of it.
const attributions: readonly (readonly [string, string, string])[] = [
  ['en', 'On Thu, 26 Nov 2026 at 14:02,', 'NAME wrote:'],
  ['de', 'Am Do., 26. Nov. 2026 um 14:02 Uhr', 'schrieb NAME:'],
  ['fr', 'Le jeu. 26 nov. 2026 à 14:02,', 'NAME a écrit :'],
  ['pl', 'czw., 26 lis 2026 o 14:02', 'NAME napisał(a):'],
  ['es', 'El jue, 26 nov 2026 a las 14:02,', 'NAME escribió:'],
  ['it', 'Il giorno gio 26 nov 2026 alle ore 14:02', 'NAME ha scritto:'],
  ['nl', 'Op do 26 nov 2026 om 14:02', 'schreef NAME:'],
  ['pt', 'A quinta, 26/11/2026, 14:02,', 'NAME escreveu:'],
];
const names = ['Maren Oduya', 'Maren Oduya <replies+ab12@porch.example>'];
const joins = [' ', '\n'];
const gaps = ['\n', '\n\n', '\n\n\n'];
const answers = [
  'please cancel my order.',
  'Please cancel my order',
  'Hello Maren,\nplease cancel my order.',
  'Hello Maren,\n\nplease cancel my order',
  'Yes!',
  'I come on 27.11.2026 at 10:30',
  'Write to me at ada@post.example',
  'Two things:\nthe fern\nand the pot',
];
const quotes = ['> The ferns are in again.\n>\n> Maren', '> One line'];

const all = attributions.flatMap(([language, when, who]) =>
  names.flatMap((name) =>
    joins.flatMap((join) =>
      gaps.flatMap((gap) =>
        answers.flatMap((answer) =>
          quotes.flatMap((quote) =>
            ['\n', '\n\n'].map((under) => {
              const attribution = `${when}${join}${who.replace('NAME', name)}`;
              return { language, answer, rest: `${attribution}${under}${quote}`, gap };
            }),
          ),
        ),
      ),
    ),
  ),
);

describe('an answer right above what it answers', () => {
  it('is whole, and nothing of what it answers is in it, in every combination', () => {
    expect(all.length).toBe(8 * 2 * 2 * 3 * 8 * 2 * 2);
    const wrong = all.filter(({ answer, gap, rest }) => {
      const { said } = partReply(`${answer}${gap}${rest}`);
      return said !== answer;
    });
    const shapes = wrong.map(({ answer, gap, rest }) => `${answer}${gap}${rest}`);
    expect({ count: wrong.length, first: shapes.slice(0, 5) }).toEqual({ count: 0, first: [] });
  });
});
