import EmailReplyParser from 'email-reply-parser';
import { partReply } from '.';

const ours = ['–––––'];
const quoted = '> The ferns are in again.\n>\n> Maren';
const line = 'On Thu, 26 Nov 2026 at 09:12, Maren <replies@porch.example> wrote:';

describe('an answer by mail', () => {
  it('is what stands above what it answers, which is kept apart', () => {
    expect(partReply(`Two, please.\n\n${line}\n\n${quoted}\n`)).toEqual({
      said: 'Two, please.',
      rest: `${line}\n\n${quoted}`,
    });
  });

  it.each([
    ['wrapped over three lines', line.replaceAll(', ', ',\n')],
    ['in another language', 'Am 26.11.26 um 09:12 schrieb Maren:'],
    ['without a date', 'Maren wrote:'],
    [
      'from right to left',
      '\u202bבתאריך 26 בנוב׳ 2026 ב-9:12 מאת \u202aMaren\u202c\u200f <m@q.example>:\u202c',
    ],
  ])('knows the line that says who wrote, %s', (_what, said) => {
    expect(partReply(`Two.\n\n${said}\n${quoted}`).said).toBe('Two.');
  });

  it.each([
    [
      'under header lines',
      'From: Maren <m@q.example>\nSent: 26/11/2026 09:12\nTo: Wren\n\nThe ferns',
    ],
    [
      'under a rule over them',
      `${'_'.repeat(32)}\nVon: Maren <m@q.example>\nGesendet: 26. November 2026 09:12\nAn: Wren\n\nDie Farne`,
    ],
    ['under our own line', '––––– Answer above this line\n\nThe ferns are in again.'],
    ['under our own line, marked and wrapped', '> ––––– Answer above\n> this line\n> The ferns'],
    [
      'under two header lines over our own',
      'From: Maren\nSent: Thursday\n\n––––– Answer above this line',
    ],
    ['under a line with who and when, unmarked', `${line}\n\nThe ferns are in again.`],
  ])('is parted from what follows %s', (_what, rest) => {
    expect(partReply(`Two.\n\n${rest}`, ours)).toEqual({ said: 'Two.', rest });
  });

  it('is read where it stands below, and in between, with the whole kept to follow it', () => {
    const below = `${line}\n${quoted}\n\nTwo, please.`;
    expect(partReply(below)).toEqual({ said: 'Two, please.', rest: below });
    const between = `${line}\n> How many?\nTwo.\n> In pots?\nYes.\n\nWren`;
    expect(partReply(between)).toEqual({ said: 'Two.\nYes.\n\nWren', rest: between });
  });

  it('has the broken-off end of a quoted line not in it', () => {
    const long = `> ${'fern '.repeat(15)}and so\non it went\n> and on`;
    expect(partReply(`Two.\n\n${line}\n${long}`).said).toBe('Two.');
  });

  it.each([
    ['a signature', 'Two.\n-- \nWren Ash\n12 Mill Lane', 'Two.'],
    ['one that lost its space', 'Two.\n--\nWren Ash\n+44 20 7946 0123', 'Two.'],
    ['what a telephone adds', 'Two.\n\nSent from my phone', 'Two.'],
    ['the same in another language', 'Deux.\n\nEnvoyé de mon téléphone', 'Deux.'],
  ])('goes without %s', (_what, text, said) => {
    expect(partReply(text).said).toBe(said);
  });

  it.each([
    ['a sentence with a colon', 'On Saturday my sister wrote:\nshe wants one too.'],
    ['two dashes between what is theirs', 'Two of these.\n--\nAnd one of those, please.'],
    ['a sentence like a telephone’s', 'Two.\n\nSent from my old address, please use this one.'],
    ['a last line like that', 'Two.\nSent with love'],
    ['who wrote when', 'See what office@x.example wrote on 26/11/2026 at 09:12:\nthree of them.'],
    ['an address and a date', 'Since 26 Nov 2026 10:00 write to:\noffice@post.example'],
    ['two lines like headers', 'From: the station it is a mile.\nTo: the shop another.'],
    ['a rule', 'Two of these\n-----\nand one of those.'],
    ['a short list that was typed so', 'I need:\n> 5 pots\n> 3 ferns\nby Friday.'],
    ['one marked line', 'Tall is > short.\n> 30 cm, I mean.\nSo the tall one.'],
    ['two dashes over a long text', `First.\n--\n${'A line.\n'.repeat(12).trim()}`],
    ['a sentence over what is quoted by hand', 'You asked:\n> In pots?\nYes, in pots.'],
    ['nothing', ''],
  ])('is left as it is with %s', (_what, text) => {
    expect(partReply(text, ours)).toEqual({ said: text, rest: '' });
  });

  it('is all of it where nothing else would be left', () => {
    const forwarded = `${line}\n\n${quoted}`;
    expect(partReply(forwarded)).toEqual({ said: forwarded, rest: '' });
  });

  it('is found under forty levels of what was answered before', () => {
    let deep = 'First';
    for (let level = 0; level < 40; level += 1) deep = `${line}\n${deep.replace(/^/gm, '> ')}`;
    expect(partReply(`Two.\n\n${deep}`)).toEqual({ said: 'Two.', rest: deep });
  });

  // email-reply-parser, where its lists of words reach.
  it.each([
    ['English', line],
    ['French', 'Le jeu. 26 nov. 2026 à 09:12, Maren <m@q.example> a écrit :'],
    ['Spanish', 'El jue, 26 nov 2026 a las 9:12, Maren (<m@q.example>) escribió:'],
    ['Danish', 'Den tor. 26. nov. 2026 kl. 09.12 skrev Maren <m@q.example>:'],
  ])('is what a library of the trade reads too, in %s', (_language, said) => {
    const text = `Two, please.\n\nWren\n\n${said}\n\n${quoted}\n`;
    expect(partReply(text).said).toBe(new EmailReplyParser().parseReply(text).trim());
  });

  // By the square of their number these would take minutes.
  it.each([
    ['empty lines', '\n'],
    ['two dashes', '--\n'],
    ['colons', 'a:\n'],
    ['marks', '> a\n'],
    ['half a header', 'From: a@b.example\nSent: 2026\n'],
  ])('is read at once where nothing but %s stands below it', (_what, line) => {
    expect(partReply(`Two.\n\n${line.repeat(100_000)}`).said.startsWith('Two.')).toBe(true);
  });
});
