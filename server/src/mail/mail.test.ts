import { en } from '@porch/core/alert-mail';
import type { Entry } from '@porch/core/conversation';
import { newThing } from '@porch/core/shelf';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { clientId, until, visit } from '../../test-kit/panel';
import { type Letter, openPost, type Post, post } from '../../test-kit/post';
import { addHelper } from '../../test-kit/routes';
import { keyInMemory } from '../security/seal';
import { openDatabase } from '../store';
import type { Db } from '../store/db';
import { meaningOf } from './sending';

const second = 1_000;
const minute = 60 * second;
const day = 24 * 60 * minute;
const MAILS_MOST = 20;

describe('alerts by mail', () => {
  let out: Post;
  let house: House;
  let maren: string;
  let door: { id: string; publicId: string };
  let ours: number;
  let db: Db;

  const setMail = (change: object = {}) =>
    house.ask('PUT', '/api/mail', {
      cookie: maren,
      body: {
        outgoing: out.outgoing,
        incoming: { kind: 'own', domain: 'porch.example' },
        outgoingPassword: null,
        incomingPassword: null,
        ...change,
      },
    });

  beforeEach(async () => {
    out = await openPost();
    db = openDatabase(':memory:');
    const limits = { mailsAMinute: MAILS_MOST };
    const publicOrigin = 'http://porch.example';
    house = await openHouse({ mailPort: 0, publicOrigin, limits }, ':memory:', { db });
    const set = await setUp(house);
    maren = set.cookie;
    door = set.door;
    ours = await house.services.mailPort.listen(0, '127.0.0.1');
    expect((await setMail()).status).toBe(200);
  });
  afterEach(async () => {
    await house.close();
    await out.close();
  });

  const isAtRest = () =>
    !house.store.jobs.isAnyUnder('alert-mail') && !house.store.jobs.isAnyUnder('refusal-mail');
  const pass = async (ms: number): Promise<void> => {
    house.clock.advance(ms);
    await house.tick();
    await until(() => (isAtRest() ? true : undefined));
  };
  const talk = () =>
    [
      ...house.store.conversations.page('waiting', null, 1),
      ...house.store.conversations.page('answered', null, 1),
    ][0]?.id ?? '';
  const roll = (kind: string): Entry[] =>
    house.store.entries.since(0, 500).filter((entry) => entry.kind === kind);
  const said = () =>
    roll('team-said').map((entry) => (entry.kind === 'team-said' ? entry.text : ''));
  /** Somebody waits for five minutes; gives the mail that says so. */
  const alerted = async (text = 'Is the bench open?') => {
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say(text);
    await pass(5 * minute);
    const mail = await until(() => out.mails.at(-1));
    return { wren, mail, replyTo: mail.replyTo?.value[0]?.address ?? '' };
  };
  const quoted = (text: string): string =>
    text
      .split('\n')
      .map((line) => `> ${line}`)
      .join('\n');

  it('are written after five minutes in which nobody looked, to the owners, with the conversation so far', async () => {
    await addHelper(house);
    const { mail, replyTo } = await alerted();
    expect(out.mails).toHaveLength(1);
    expect(mail).toMatchObject({
      envelopeTo: ['maren@quillfern.example'],
      subject: 'Visitor waits: Is the bench open?',
    });
    expect(mail.from?.text).toBe('"Quillfern Nursery" <hello@quillfern.example>');
    expect(mail.text).toContain('Is the bench open?');
    expect(mail.text).toContain(`http://porch.example/line/${talk()}`);
    expect(mail.html).toContain('Is the bench open?');
    expect(mail.headers.get('auto-submitted')).toBe('auto-generated');
    expect(replyTo).toMatch(/^replies\+[a-z2-7]{30}@porch\.example$/);
    expect(roll('rang')).toMatchObject([{ by: 'mail' }]);
    // Whoever looks then came because of it, though no device of theirs rings.
    const upTo = house.store.conversations.byId(talk())?.state.saidSeq;
    const body = { do: 'read', id: clientId(), upTo };
    await house.ask('POST', `/api/conversations/${talk()}/deeds`, { cookie: maren, body });
    expect(roll('looked')).toHaveLength(1);
  });

  it('are one mail under one name, however often it has to go', async () => {
    out.lost.push(451, 451);
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Hello?');
    house.clock.advance(5 * minute);
    void house.tick();
    for (let tries = 1; tries <= 3; tries += 1) {
      await until(() => (out.mails.length >= tries ? true : undefined));
      await until(() => (house.store.jobs.isAnyLeased() ? undefined : true));
      house.clock.advance(minute);
      await house.tick();
    }
    await until(() => (out.mails.length >= 3 ? true : undefined));
    expect(new Set(out.mails.map(({ messageId }) => messageId)).size).toBe(1);
  });

  it('say what was handed over of the shelf, too', async () => {
    const thing = { ...newThing('item'), name: 'Fern', price: '14.50', currency: 'GBP' };
    const body = { revision: 0, thing, fileId: null };
    await house.ask('PUT', '/api/shelf/thing-of-test-1', { cookie: maren, body });
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Ferns?');
    const deed = {
      do: 'say',
      id: clientId(),
      text: 'One:',
      fileIds: [],
      shelf: ['thing-of-test-1'],
    };
    await house.ask('POST', `/api/conversations/${talk()}/deeds`, { cookie: maren, body: deed });
    await wren.say('And two?');
    await pass(5 * minute);
    const { text } = await until(() => out.mails.at(-1));
    expect(text).toMatch(/One:\s+Fern\s+£14\.50/);
  });

  it('are not written once somebody has looked, nor to who left, nor while mail does not go out', async () => {
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Hello');
    await pass(minute);
    const upTo = house.store.conversations.byId(talk())?.state.saidSeq;
    const body = { do: 'read', id: clientId(), upTo };
    await house.ask('POST', `/api/conversations/${talk()}/deeds`, { cookie: maren, body });
    await pass(10 * minute);
    expect(out.mails).toHaveLength(0);
    await wren.say('Anybody?');
    await setMail({ outgoing: null });
    await pass(10 * minute);
    expect(out.mails).toHaveLength(0);
    // Nobody was reached: a look is not what came of it.
    const last = house.store.conversations.byId(talk())?.state.saidSeq;
    const seen = { do: 'read', id: clientId(), upTo: last };
    await house.ask('POST', `/api/conversations/${talk()}/deeds`, { cookie: maren, body: seen });
    expect(roll('looked')).toEqual([]);
  });

  it('are tried again where the server asks for that, and say on the roll that they were refused', async () => {
    out.answers.push(451);
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Hello');
    house.clock.advance(5 * minute);
    await house.tick();
    const waiting = db.prepare(
      "SELECT why FROM jobs WHERE kind = 'alert-mail' AND state = 'ready'",
    );
    await until(() => (waiting.get() ? true : undefined));
    expect(waiting.get()).toEqual({ why: 'mail-later' });
    await pass(15 * second);
    expect(out.mails).toHaveLength(1);
    out.answers.push(550);
    await (await visit(house, door.publicId, 'robin')).say('Hello');
    await pass(5 * minute);
    expect(roll('rang')).toMatchObject([{ by: 'mail' }, { by: 'mail', failed: 'mail-refused' }]);
    expect(house.store.jobs.deadCount()).toBe(1);
  });

  describe('answered by mail', () => {
    it('answer the visitor as whose address it is, without what was quoted and the signature', async () => {
      const { wren, mail, replyTo } = await alerted();
      const answer = `Yes, until four.\n\nCome by!\n\n-- \nMaren Oduya\nQuillfern Nursery\n\nOn Thu, 12 Nov 2026 at 10:07, Quillfern Nursery <hello@quillfern.example> wrote:\n\n${quoted(mail.text ?? '')}`;
      expect(await post(ours, { to: replyTo, text: answer })).toMatch(/^250/);
      const { entries } = await wren.hear('entries', (told) =>
        told.entries.some(({ by }) => by === 'team'),
      );
      expect(entries.at(-1)).toMatchObject({
        text: 'Yes, until four.\n\nCome by!',
        name: 'Maren Oduya',
      });
      expect(said()).toEqual(['Yes, until four.\n\nCome by!']);
    });

    it('goes to whoever the alert was about, whoever was put beside them and wrote since', async () => {
      const { wren, replyTo } = await alerted();
      const robin = await visit(house, door.publicId, 'robin');
      await robin.say('Hello');
      const [first, second] = roll('visitor-said');
      const joined = await house.ask('POST', `/api/conversations/${first?.conversationId}/deeds`, {
        cookie: maren,
        body: { do: 'join', id: clientId(), other: second?.conversationId },
      });
      expect(joined.status).toBe(200);
      await robin.say('Me again');
      expect(await post(ours, { to: replyTo, text: 'Until four' })).toMatch(/^250/);
      expect(roll('team-said')[0]?.threadId).toBe(first?.threadId);
      wren.close();
      robin.close();
    });

    it('is not passed on where somebody came by a code, and says so', async () => {
      const [wren, robin] = await Promise.all(
        ['wren', 'robin'].map((who) => visit(house, door.publicId, who)),
      );
      await wren?.say('Is the bench open?');
      await robin?.say('I am Wren');
      const [into, from] = roll('visitor-said').map(({ conversationId }) =>
        house.services.persons.standing(conversationId),
      );
      if (!into || !from) throw new Error('two conversations were begun');
      house.store.atOnce(() => house.services.persons.join(into, from, clientId(), 'code'));
      await pass(5 * minute);
      const alert = await until(() => out.mails.at(-1));
      const to = alert.replyTo?.value[0]?.address ?? '';
      await post(ours, { to, text: 'The key is under the pot' });
      expect(roll('team-said')).toEqual([]);
      expect(roll('held-back')).toMatchObject([{ why: 'whom-unclear' }]);
      await pass(second);
      expect(out.mails.at(-1)?.text).toContain('choose who your answer is for');
      wren?.close();
      robin?.close();
    });

    it.each([
      [
        'under a line of another program',
        (text: string) =>
          `Until four\n\n________________________________\nFrom: Quillfern Nursery\nSent: Thursday\n\n${text}`,
      ],
      [
        'with all of it quoted in another language',
        (text: string) =>
          `Until four\n\nAm 12. November 2026 um 10:07 schrieb Quillfern Nursery:\n${quoted(text)}`,
      ],
      ['with nothing before our own line', (text: string) => `Until four\n${text}`],
    ])('are cut %s', async (_how, write) => {
      const { mail, replyTo } = await alerted();
      await post(ours, { to: replyTo, text: write(mail.text ?? '') });
      expect(said()).toEqual(['Until four']);
    });

    it('are read from HTML and from any encoding, with what was attached', async () => {
      const { replyTo } = await alerted();
      await post(ours, {
        to: replyTo,
        html: '<p>Bis vier <b>Uhr</b></p><blockquote>old</blockquote>',
      });
      await post(ours, {
        to: replyTo,
        raw: Buffer.from(
          `From: maren@quillfern.example\r\nTo: ${replyTo}\r\nMessage-ID: <latin@q.example>\r\nContent-Type: text/plain; charset=iso-8859-1\r\nContent-Transfer-Encoding: 8bit\r\n\r\nF\xFCnf Pl\xE4tze\r\n`,
          'latin1',
        ),
      });
      await post(ours, {
        to: replyTo,
        text: 'The plan',
        attachments: [{ filename: 'plan.txt', content: Buffer.from('Bench one') }],
      });
      expect(said()[0]).toMatch(/^Bis vier Uhr/);
      expect(said()[1]).toBe('Fünf Plätze');
      expect(roll('team-said').at(-1)).toMatchObject({
        text: 'The plan',
        files: [{ name: 'plan.txt' }],
      });
    });

    it('are one answer however often the same mail is handed over', async () => {
      const { replyTo } = await alerted();
      const letter: Letter = { to: replyTo, text: 'Yes', messageId: '<once@quillfern.example>' };
      for (let time = 0; time < 3; time += 1) expect(await post(ours, letter)).toMatch(/^250/);
      expect(said()).toEqual(['Yes']);
    });

    it.each<[string, Partial<Letter>, string, boolean]>([
      [
        'comes from another address',
        { from: 'tobias@quillfern.example', text: 'Yes' },
        'unknown-sender',
        true,
      ],
      [
        'is an out-of-office',
        { text: 'I am away', headers: { 'Auto-Submitted': 'auto-replied' } },
        'automatic',
        false,
      ],
      ['is a bounce', { envelopeFrom: '', text: 'Undeliverable' }, 'automatic', false],
      ['has nothing in it', { text: '' }, 'empty', true],
      ['is too long', { text: 'a'.repeat(4_100) }, 'too-large', true],
      [
        'was found to be forged',
        { text: 'Yes', headers: { 'Authentication-Results': 'mx.example; dmarc=fail' } },
        'unknown-sender',
        true,
      ],
    ])('are held back where one %s', async (_what, letter, why, isTold) => {
      const { replyTo } = await alerted();
      const before = out.mails.length;
      expect(await post(ours, { to: replyTo, ...letter })).toMatch(/^250/);
      await pass(second);
      expect(said()).toEqual([]);
      expect(roll('held-back')).toMatchObject([{ why }]);
      expect(out.mails.length - before).toBe(isTold ? 1 : 0);
      if (!isTold) return;
      expect(out.mails.at(-1)?.subject).toBe('Your answer was not sent');
      expect(out.mails.at(-1)?.headers.get('auto-submitted')).toBe('auto-replied');
    });

    it('are held back once the address is too old, and say so', async () => {
      const { replyTo } = await alerted();
      await pass(14 * day);
      expect(await post(ours, { to: replyTo, text: 'Yes' })).toMatch(/^250/);
      await pass(second);
      expect(said()).toEqual([]);
      expect(out.mails.at(-1)?.text).toContain(en.refused.stale.text);
    });

    it('are told no more than three times an hour why, so that two programs never talk for long', async () => {
      const { replyTo } = await alerted();
      const before = out.mails.length;
      for (let time = 0; time < 10; time += 1) {
        await post(ours, { to: replyTo, from: 'robot@post.example', text: `Again ${time}` });
      }
      await pass(second);
      expect(out.mails.length - before).toBe(3);
    });

    it('go where what was said stands now, after two conversations became one', async () => {
      const { replyTo } = await alerted();
      const from = talk();
      await (await visit(house, door.publicId, 'robin')).say('Good day');
      const into = house.store.conversations
        .page('waiting', null, 5)
        .find(({ id }) => id !== from)?.id;
      const body = { do: 'join', id: clientId(), other: from };
      await house.ask('POST', `/api/conversations/${into}/deeds`, { cookie: maren, body });
      await post(ours, { to: replyTo, text: 'Yes' });
      expect(
        house.store.entries.since(0, 500).find(({ kind }) => kind === 'team-said')?.conversationId,
      ).toBe(into);
    });
  });

  describe('the port', () => {
    it('takes nothing for anybody else, nor for an address that was made up or changed', async () => {
      const { replyTo } = await alerted();
      const changed = replyTo.replace(/.@/, (end) => (end === 'a@' ? 'b@' : 'a@'));
      for (const to of [
        'somebody@elsewhere.example',
        'replies@porch.example',
        changed,
        `replies+${'a'.repeat(30)}@porch.example`,
      ]) {
        expect([to, await post(ours, { to, text: 'Yes' })]).toEqual([
          to,
          expect.stringMatching(/550/),
        ]);
      }
      expect(said()).toEqual([]);
    });

    it('takes no mail of thirty megabytes', async () => {
      const { replyTo } = await alerted();
      const content = Buffer.alloc(30 * 1024 * 1024, 'a');
      const answer = await post(ours, {
        to: replyTo,
        text: 'Yes',
        attachments: [{ filename: 'a.bin', content }],
      });
      expect(answer).toMatch(/552/);
      expect(said()).toEqual([]);
    });

    it('asks whoever hands over a thousand to come later', async () => {
      const { replyTo } = await alerted();
      const answers: string[] = [];
      for (let time = 0; time < MAILS_MOST + 5; time += 1)
        answers.push(await post(ours, { to: replyTo, text: `Yes ${time}` }));
      expect(answers.filter((answer) => /^250/.test(answer))).toHaveLength(MAILS_MOST);
      expect(answers.at(-1)).toMatch(/451/);
    });

    it('keeps nothing that it could not write down: whoever has it keeps it', async () => {
      const { replyTo } = await alerted();
      const add = jest.spyOn(house.store.entries, 'append').mockImplementation(() => {
        throw Object.assign(new Error('disk full'), { code: 'SQLITE_FULL' });
      });
      expect(await post(ours, { to: replyTo, text: 'Yes' })).toMatch(/451/);
      add.mockRestore();
      expect(await post(ours, { to: replyTo, text: 'Yes' })).toMatch(/^250/);
      expect(said()).toEqual(['Yes']);
    });
  });

  describe('the settings', () => {
    it('make alerts answerable again, once the password is said anew after the key was lost', async () => {
      await alerted();
      const { outgoing } = out;
      await house.services.mailPort.close();
      await house.app.close();
      const lost = { db, keys: keyInMemory() };
      house = await openHouse({ mailPort: 0, publicOrigin: 'http://porch.example' }, '', lost);
      house.clock.advance(day);
      ours = await house.services.mailPort.listen(0, '127.0.0.1');
      await setMail({ outgoing, outgoingPassword: 'right' });
      const before = out.mails.length;
      await (await visit(house, door.publicId, 'robin')).say('Hello');
      await pass(5 * minute);
      const mail = await until(() => out.mails[before]);
      const to = mail.replyTo?.value[0]?.address ?? '';
      expect(await post(ours, { to, text: 'Good day' })).toMatch(/^250/);
      expect(said()).toEqual(['Good day']);
    });

    it('never tell a password, and keep the one that was set when nothing is said of it', async () => {
      await setMail({ outgoing: { ...out.outgoing, user: 'maren' }, outgoingPassword: 'right' });
      const { body } = await setMail({ outgoing: { ...out.outgoing, user: 'maren' } });
      expect(body).toMatchObject({ hasOutgoingPassword: true, hasIncomingPassword: false });
      expect(JSON.stringify(body)).not.toContain('right');
      expect(house.services.mailSettings.outgoingPassword()).toBe('right');
      expect(house.store.houseSecrets.sealed('mail-out')?.includes('right')).toBe(false);
    });

    it('are tried by a mail to whoever asks, and say what failed in the server’s own words', async () => {
      const test = async () => (await house.ask('POST', '/api/mail/test', { cookie: maren })).body;
      expect(await test()).toEqual({ why: null, said: '', to: 'maren@quillfern.example' });
      expect(out.mails.at(-1)?.subject).toBe('Quillfern Nursery: mail goes out');
      await setMail({ outgoing: { ...out.outgoing, user: 'maren' }, outgoingPassword: 'wrong' });
      expect(await test()).toMatchObject({
        why: 'mail-sign-in',
        said: expect.stringContaining('535'),
      });
      out.answers.push(554);
      await setMail();
      expect(await test()).toMatchObject({
        why: 'mail-refused',
        said: expect.stringContaining('not now'),
      });
      await setMail({ outgoing: { ...out.outgoing, security: 'starttls' } });
      expect((await test()).why).toBe('mail-encryption');
      await setMail({ outgoing: { ...out.outgoing, port: 1 } });
      expect((await test()).why).toBe('mail-unreachable');
    });

    it('are refused where they make no sense, and nobody’s but an owner’s', async () => {
      const bad = async (change: object) => (await setMail(change)).body.code;
      expect(await bad({ outgoing: { ...out.outgoing, from: 'nobody' } })).toBe(
        'email-not-understood',
      );
      expect(await bad({ incoming: { kind: 'own', domain: 'not a domain' } })).toBe(
        'email-not-understood',
      );
      expect(await bad({ outgoing: { ...out.outgoing, host: 'a b' } })).toBe('bad-request');
      expect(await bad({ outgoing: { ...out.outgoing, port: 0 } })).toBe('bad-request');
      const tobias = await addHelper(house);
      expect((await house.ask('GET', '/api/mail', { cookie: tobias })).status).toBe(403);
    });
  });

  it('know what an error of a mail server means', () => {
    expect(meaningOf({ responseCode: 421, response: '421 later' })).toMatchObject({
      why: 'mail-later',
      isFinal: false,
    });
    expect(meaningOf({ responseCode: 550 })).toMatchObject({ why: 'mail-refused', isFinal: true });
    expect(meaningOf({ code: 'EDNS', message: 'not found' })).toMatchObject({
      why: 'mail-unreachable',
    });
    expect(meaningOf({ code: 'ESOCKET', message: 'self-signed certificate' })).toMatchObject({
      why: 'mail-encryption',
    });
  });
});
