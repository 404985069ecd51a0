import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { GATHER_MS } from '@porch/core/routes';
import { type MailHouse, openMailHouse } from '../../test-kit/mailed';
import { clientId, until, visit } from '../../test-kit/panel';
import { type Letter, post } from '../../test-kit/post';

const minute = 60_000;
const day = 24 * 60 * minute;

describe('what a visitor answers by mail', () => {
  let mailed: MailHouse;
  let roll: MailHouse['roll'];
  let out: MailHouse['out'];
  let house: MailHouse['house'];
  let cookie: string;
  let ours: number;
  let talk: string;
  let to: string;

  beforeEach(async () => {
    mailed = await openMailHouse();
    ({ out, house, cookie, ours, roll } = mailed);
    const wren = await visit(house, mailed.door.publicId, 'wren');
    await wren.say('Do you have bonsai?');
    wren.tell({ do: 'details', id: clientId(), name: 'Wren', email: 'wren@post.example' });
    await until(() => (roll('details').length > 0 ? true : undefined));
    wren.close();
    await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
    await pass(minute);
    talk = roll('visitor-said')[0]?.conversationId ?? '';
    await deed({ do: 'say', text: 'We have two.', fileIds: [] });
    await pass(GATHER_MS);
    await until(() => (roll('mailed').length > 0 ? true : undefined));
    to = out.mails[0]?.replyTo?.value[0]?.address ?? '';
  });
  afterEach(() => mailed.close());

  const pass = async (ms: number): Promise<void> => {
    house.clock.advance(ms);
    await house.tick();
  };
  const said = (): string[] => roll('visitor-said').map(({ text }) => text);
  const deed = (what: object, id = clientId()) =>
    house.ask('POST', `/api/conversations/${talk}/deeds`, { cookie, body: { id, ...what } });
  const write = (letter: Partial<Letter>) =>
    post(ours, { from: 'Wren <wren@post.example>', to, ...letter });
  const raw = (head: readonly string[], body: string | Buffer, from = 'wren@post.example') =>
    post(ours, {
      from,
      to,
      raw: Buffer.concat([
        Buffer.from([`From: Wren <${from}>`, `To: ${to}`, ...head, '', ''].join('\r\n')),
        Buffer.from(body),
      ]),
    });
  const restOf = (entryId: string, as = cookie, at = talk) =>
    house.ask('GET', `/api/conversations/${at}/entries/${entryId}/rest`, { cookie: as });
  /** Somebody else writes; gives their conversation. */
  const another = async (): Promise<string> => {
    const tern = await visit(house, mailed.door.publicId, 'tern');
    await tern.say('Good evening');
    return roll('visitor-said').at(-1)?.conversationId ?? '';
  };

  it('can be unfolded to what they answered, by the team and by nobody else', async () => {
    await write({
      text: 'Keep one.\n\nOn 12/11/2026 10:02, Maren wrote:\n> We have two.\n> Maren',
    });
    const [, answer] = roll('visitor-said');
    expect(answer).toMatchObject({ text: 'Keep one.', isMail: true, hasRest: true });
    expect((await restOf(answer?.id ?? '')).body).toEqual({
      text: 'On 12/11/2026 10:02, Maren wrote:\n> We have two.\n> Maren',
    });
    expect((await restOf(answer?.id ?? '', '')).status).toBe(401);
    const elsewhere = await another();
    expect((await restOf(answer?.id ?? '', cookie, elsewhere)).body).toEqual({ text: '' });
    expect(roll('visitor-said')[0]).not.toHaveProperty('hasRest');
    expect(roll('visitor-said')[0]).not.toHaveProperty('isMail');
  });

  it('is kept with so much of what is quoted as is of use', async () => {
    await write({ text: `Yes.\n\nOn 12/11/2026 10:02, M wrote:\n${'> a line\n'.repeat(5_000)}` });
    const rest = (await restOf(roll('visitor-said')[1]?.id ?? '')).body.text;
    expect(rest.length).toBeLessThan(21_000);
    expect(rest.endsWith(' …')).toBe(true);
  });

  describe('that comes from another address', () => {
    const from = 'Wren at work <Wren.Ash@office.example>';
    const asked = () => roll('held-back').filter(({ says }) => says !== undefined);
    const decide = (isTheirs: boolean, nth = 0, id = clientId()) =>
      deed({ do: 'own-mail', of: asked()[nth]?.id ?? '', isTheirs }, id);
    const open = () => house.store.followUps.due(null, 50).filter(({ why }) => why === 'asked');

    it('is asked about, with what it says, and is on the list of what is owed', async () => {
      await write({ from, text: 'Keep one, please.' });
      expect(asked()).toMatchObject([
        { why: 'other-address', from: 'Wren.Ash@office.example', says: 'Keep one, please.' },
      ]);
      expect(open()).toHaveLength(1);
      expect(said()).toEqual(['Do you have bonsai?']);
      // An answer to them does not say whose the mail is.
      await deed({ do: 'say', text: 'Hello?', fileIds: [] });
      expect(open()).toHaveLength(1);
    });

    it('comes in whole once somebody says that it is theirs, and what follows at once', async () => {
      await write({
        from,
        text: 'Keep one.\n\nOn 12/11/2026 10:02, Maren wrote:\n> We have two.',
        attachments: [{ filename: 'place.txt', content: Buffer.from('by the window') }],
      });
      await write({ from, text: 'Or both.' });
      const id = clientId();
      await decide(true, 0, id);
      await decide(true, 0, id);
      await pass(1_000);
      await until(() => (said().length === 3 ? true : undefined));
      expect(said().sort()).toEqual(['Do you have bonsai?', 'Keep one.', 'Or both.']);
      const one = roll('visitor-said').find(({ text }) => text === 'Keep one.');
      expect(one).toMatchObject({ hasRest: true, files: [{ name: 'place.txt' }] });
      expect(roll('held-decided')).toHaveLength(2);
      expect(open()).toEqual([]);
      await write({ from, text: 'Tomorrow then.' });
      expect(said()).toContain('Tomorrow then.');
      expect(house.store.heldMails.bytesHeld()).toBe(0);
    });

    it('stays out where it is not, is asked about no more, and can be let in after all', async () => {
      await write({ from, text: 'Buy my lamps' });
      await decide(false);
      await write({ from, text: 'Buy more lamps' });
      await pass(1_000);
      expect(said()).toHaveLength(1);
      expect(asked()).toHaveLength(1);
      expect(roll('held-back')).toHaveLength(2);
      expect(open()).toEqual([]);
      await decide(true);
      await pass(1_000);
      await until(() => (said().length === 2 ? true : undefined));
      expect((await decide(false)).status).toBe(404);
    });

    it('is not asked about without end', async () => {
      for (let nth = 0; nth < 8; nth += 1) {
        await write({ from: `else${nth}@post.example`, text: `Number ${nth}` });
      }
      expect(asked()).toHaveLength(5);
      expect(roll('held-back')).toHaveLength(8);
      await pass(61 * day);
      house.services.mailTaking.tidy();
      expect(house.store.heldMails.bytesHeld()).toBe(0);
    });

    it('is answered for by nobody outside the conversation that it is about', async () => {
      await write({ from, text: 'Keep one, please.' });
      const [{ id } = { id: '' }] = asked();
      const body = { do: 'own-mail', id: clientId(), of: id, isTheirs: true };
      const elsewhere = `/api/conversations/${await another()}/deeds`;
      expect((await house.ask('POST', elsewhere, { cookie, body })).status).toBe(404);
      const made = { ...body, of: 'no-such-entry' };
      const here = `/api/conversations/${talk}/deeds`;
      expect((await house.ask('POST', here, { cookie, body: made })).status).toBe(404);
      expect((await house.ask('POST', here, { body })).status).toBe(401);
      await pass(1_000);
      expect(roll('held-decided')).toEqual([]);
    });
  });

  describe('in a form that few programs write', () => {
    const plain = 'Content-Type: text/plain; charset=utf-8';
    const calendar = [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'METHOD:REQUEST',
      'BEGIN:VEVENT',
      'UID:1@post.example',
      'DTSTART:20261114T100000Z',
      'SUMMARY:Fetch the bonsai',
      'END:VEVENT',
      'END:VCALENDAR',
    ].join('\r\n');

    it('is read where it is only HTML', async () => {
      await write({
        html: '<p>Keep <b>one</b>, please.</p><img src="https://elsewhere.example/seen.gif"><blockquote>On 12/11/2026 10:02, Maren wrote:<br>We have two.</blockquote>',
      });
      expect(said()[1]).toBe('Keep one, please.');
      expect(JSON.stringify(roll('visitor-said')[1])).not.toContain('elsewhere.example');
    });

    it.each([
      ['nested without end', `<p>Keep one.</p>${'<div><blockquote>'.repeat(20_000)}`],
      ['longer than any letter', `<p>Keep one.</p><blockquote>${'<p>a </p>'.repeat(200_000)}`],
    ])('is read where it is HTML %s', async (_what, html) => {
      expect(await write({ html })).toMatch(/^250/);
      expect(said()[1]).toBe('Keep one.');
    });

    it('is read in ISO-2022-JP', async () => {
      // RFC 1468.
      const text = readFileSync(join(process.cwd(), 'bench/quoted/held-out.mbox'), 'latin1');
      const mail = text.split(/^From .*\n/m).find((one) => one.includes('<line-ja@')) ?? '';
      const body = mail.slice(mail.indexOf('\n\n') + 2);
      await raw(
        ['Content-Type: text/plain; charset=iso-2022-jp', 'Content-Transfer-Encoding: 7bit'],
        Buffer.from(body, 'latin1'),
      );
      expect(said()[1]).toBe('二鉢とも鉢植えでお願いします。\n土曜日の午前に伺います。');
    });

    it('is read where it is signed (RFC 1847), with the signature as what it is', async () => {
      await raw(
        [
          'MIME-Version: 1.0',
          'Content-Type: multipart/signed; protocol="application/pkcs7-signature"; micalg=sha-256; boundary="s"',
        ],
        [
          '--s',
          plain,
          '',
          'Keep one, please.',
          '--s',
          'Content-Type: application/pkcs7-signature; name="smime.p7s"',
          'Content-Transfer-Encoding: base64',
          'Content-Disposition: attachment; filename="smime.p7s"',
          '',
          Buffer.from('a signature').toString('base64'),
          '--s--',
          '',
        ].join('\r\n'),
      );
      expect(roll('visitor-said')[1]).toMatchObject({ text: 'Keep one, please.', files: [] });
    });

    it('is told of where it is encrypted (RFC 3156), and does not pass as empty', async () => {
      await raw(
        [
          'MIME-Version: 1.0',
          'Content-Type: multipart/encrypted; protocol="application/pgp-encrypted"; boundary="e"',
        ],
        [
          '--e',
          'Content-Type: application/pgp-encrypted',
          '',
          'Version: 1',
          '--e',
          'Content-Type: application/octet-stream; name="encrypted.asc"',
          '',
          '-----BEGIN PGP MESSAGE-----',
          'hQEMA0',
          '-----END PGP MESSAGE-----',
          '--e--',
          '',
        ].join('\r\n'),
      );
      expect(roll('held-back')).toMatchObject([{ why: 'encrypted' }]);
      // They have no answer yet, and are not told by mail that theirs was not read.
      expect(roll('owed').at(-1)).toMatchObject({ why: 'held' });
      expect(said()).toHaveLength(1);
    });

    it('is nobody’s where the end of the address is another, and where it has none', async () => {
      const [name = '', domain = ''] = to.split('@');
      const last = name.at(-1) === 'a' ? 'b' : 'a';
      for (const wrong of [`${name.slice(0, -1)}${last}`, name.slice(0, -20)]) {
        await write({ to: `${wrong}@${domain}`, text: 'Send it elsewhere.' }).catch(() => '');
      }
      expect(said()).toHaveLength(1);
      await write({ text: 'Keep ten.' });
      expect(said()).toEqual([said()[0], 'Keep ten.']);
    });

    it.each([
      ['two writers', ['From: wren@post.example, else@x.example']],
      ['no writer', []],
    ])('is not taken with %s, nor asked about', async (_what, head) => {
      const letter = [...head, plain, '', 'Keep ten.'].join('\r\n');
      await post(ours, { from: 'else@x.example', to, raw: letter });
      expect(said()).toHaveLength(1);
      expect(roll('held-back')).toEqual([
        expect.objectContaining({ why: 'other-address', from: 'else@x.example' }),
      ]);
      expect(roll('held-back')[0]).not.toHaveProperty('says');
    });

    it('is not taken where its server found that it comes from elsewhere (RFC 8601)', async () => {
      await raw([plain, 'Authentication-Results: mx.example; dmarc=fail'], 'Keep ten.');
      expect(roll('held-back')).toMatchObject([{ why: 'forged', from: 'wren@post.example' }]);
      expect(said()).toHaveLength(1);
      expect(roll('owed').filter(({ why }) => why === 'held' || why === 'asked')).toEqual([]);
    });

    it('is read with a winmail.dat, which stays a file', async () => {
      await write({
        text: 'Keep one, please.',
        attachments: [{ filename: 'winmail.dat', content: Buffer.from('789f3e22', 'hex') }],
      });
      expect(roll('visitor-said')[1]).toMatchObject({
        text: 'Keep one, please.',
        files: [{ name: 'winmail.dat' }],
      });
    });

    it('is read with an invitation, which stays a file', async () => {
      await raw(
        ['MIME-Version: 1.0', 'Content-Type: multipart/alternative; boundary="c"'],
        [
          '--c',
          plain,
          '',
          'Saturday at ten?',
          '--c',
          'Content-Type: text/calendar; method=REQUEST; charset=utf-8',
          '',
          calendar,
          '--c--',
          '',
        ].join('\r\n'),
      );
      expect(roll('visitor-said')[1]).toMatchObject({ text: 'Saturday at ten?' });
      expect(roll('visitor-said')[1]?.files).toHaveLength(1);
    });

    it('is theirs alone where somebody else’s mail is forwarded in it', async () => {
      await write({
        text: 'Can you match it?\n\n---------- Forwarded message ---------\nFrom: Bramble <shop@bramble.example>\nDate: Wed, Nov 11, 2026 at 4:40 PM\nSubject: Offer\nTo: Wren <wren@post.example>\n\nBonsai, 40 each.',
      });
      const [, answer] = roll('visitor-said');
      expect(answer?.text).toBe('Can you match it?');
      expect((await restOf(answer?.id ?? '')).body.text).toContain('40 each');
    });

    it('crosses with what the team says, and each has its place', async () => {
      await Promise.all([
        write({ text: 'One or both?' }),
        deed({ do: 'say', text: 'Or shall we keep both?', fileIds: [] }),
      ]);
      await pass(GATHER_MS);
      await until(() => (out.mails.length === 2 ? true : undefined));
      expect(said()).toEqual(['Do you have bonsai?', 'One or both?']);
      expect(out.mails[1]?.text).toContain('Or shall we keep both?');
      await until(() => (roll('mailed').length === 2 ? true : undefined));
    });
  });
});
