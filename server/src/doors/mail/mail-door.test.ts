import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Entry } from '@porch/core/conversation';
import sharp from 'sharp';
import { type MailHouse, openMailHouse } from '../../../test-kit/mailed';
import { clientId, until } from '../../../test-kit/panel';
import { deliveryReport, type Letter, post } from '../../../test-kit/post';
import { createOutside } from '../../security/outside';

const minute = 60_000;

describe('a door to mails', () => {
  let mailed: MailHouse;
  let roll: MailHouse['roll'];
  let out: MailHouse['out'];
  let house: MailHouse['house'];
  let cookie: string;
  let ours: number;
  let doorId: string;
  let site: Server;
  let fetched: string[];
  let pictures: Map<string, Buffer>;
  let near: string;

  beforeEach(async () => {
    fetched = [];
    pictures = new Map();
    site = createServer((request, response) => {
      const path = request.url ?? '';
      fetched.push(path);
      if (path === '/moved') return response.writeHead(302, { location: '/fern.png' }).end();
      const bytes = pictures.get(path);
      return response.writeHead(bytes ? 200 : 404).end(bytes);
    });
    await new Promise<void>((listening) => site.listen(0, '127.0.0.1', listening));
    near = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
    // A mail names its pictures by https only; this one stands for that.
    const open = createOutside({ allowed: [near] });
    const ask: typeof open.ask = (what) =>
      open.ask({ ...what, address: what.address.replace('https://pictures.example', near) });
    mailed = await openMailHouse({ anywhere: { ...open, ask } });
    ({ out, house, cookie, ours, roll } = mailed);
    const made = await doors('POST', '', {
      kind: 'mail',
      name: 'Mail',
      given: { address: 'Hello@porch.example, shop@porch.example' },
    });
    expect(made.status).toBe(200);
    doorId = made.body.id;
  });
  afterEach(async () => {
    await mailed.close();
    await new Promise((closed) => site.close(closed));
  });

  const doors = (method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: object) =>
    house.ask(method, `/api/network-doors${path}`, { cookie, ...(body ? { body } : {}) });
  const check = () => doors('POST', `/${doorId}/check`, {});
  const write = (letter: Partial<Letter>) =>
    post(ours, {
      from: 'Wren Ash <wren@post.example>',
      to: 'hello@porch.example',
      subject: 'Two ferns',
      text: 'Do you have two?',
      ...letter,
    });
  const said = () => roll('visitor-said');
  const inGroup = (group: 'waiting' | 'answered' | 'wrapped-up') =>
    house.store.conversations.page(group, null, 10);
  const talkOf = (entry: Entry | undefined): string => entry?.conversationId ?? '';
  const deed = (what: object, talk = talkOf(said()[0])) =>
    house.ask('POST', `/api/conversations/${talk}/deeds`, {
      cookie,
      body: { id: clientId(), ...what },
    });
  const answer = (text: string, fileIds: string[] = []) => deed({ do: 'say', text, fileIds });
  const pass = async (ms: number): Promise<void> => {
    house.clock.advance(ms);
    await house.tick();
  };
  const answered = async (text = 'Yes, two.') => {
    const before = out.mails.length;
    await answer(text);
    await pass(1);
    await until(() => (out.mails.length > before ? true : undefined));
    return out.mails.at(-1);
  };

  it('begins a conversation with its subject, of whoever wrote', async () => {
    expect(await write({})).toMatch(/^250/);
    expect(said()).toMatchObject([
      { text: 'Do you have two?', subject: 'Two ferns', isMail: true },
    ]);
    const [row] = inGroup('waiting');
    expect(row?.state).toMatchObject({
      name: 'Wren Ash',
      email: 'wren@post.example',
      lastWords: 'Two ferns: Do you have two?',
    });
    expect((await doors('GET', `/${doorId}`)).body.heardFrom).toMatchObject({ name: 'Wren Ash' });
    const { body } = await house.ask('GET', '/api/search?words=ferns', { cookie });
    expect(body.found).toHaveLength(1);
  });

  it('is of whoever filled in a website’s form, each their own, and answered to them', async () => {
    const form = {
      from: 'Website <no-reply@forms.example>',
      envelopeFrom: 'no-reply@forms.example',
    };
    const filled = (name: string, text: string) =>
      write({
        ...form,
        text,
        headers: { 'Reply-To': `${name} <${name.toLowerCase()}@post.example>` },
      });
    await filled('Ada', 'One fern?');
    await filled('Emlyn', 'Two ferns?');
    expect(said().map(({ setAside }) => setAside)).toEqual([undefined, undefined]);
    expect(new Set(said().map(talkOf)).size).toBe(2);
    // That they wrote is the form's word: who sent it is told beside it.
    expect(said().map(({ via }) => via)).toEqual(Array(2).fill('no-reply@forms.example'));
    const names = inGroup('waiting').map(({ state }) => [state.name, state.email]);
    expect(names.sort()).toEqual([
      ['Ada', 'ada@post.example'],
      ['Emlyn', 'emlyn@post.example'],
    ]);
    const mail = await answered('Yes, one.');
    expect(mail?.envelopeTo).toEqual(['ada@post.example']);
  });

  it('proves nobody but whoever was written to, whatever else it names to be answered', async () => {
    await write({});
    await answered('Yes, two.');
    // Somebody has this address proven already.
    await write({ from: 'Ada <ada@post.example>', text: 'Ada here' });
    const ada = roll('visitor-said').at(-1);
    house.store.ways.write({
      threadId: ada?.threadId ?? '',
      kind: 'email',
      key: 'ada@post.example',
      address: 'ada@post.example',
      source: 'proven',
      at: house.clock.now(),
    });
    const to = out.mails.at(-1)?.replyTo?.value[0]?.address ?? '';
    await write({ to, headers: { 'Reply-To': 'ada@post.example' }, text: 'I am Ada, believe me' });
    const claim = roll('visitor-said').at(-1);
    expect(claim?.text).toBe('I am Ada, believe me');
    expect(talkOf(claim)).not.toBe(talkOf(ada));
    expect(claim?.threadId).toBe(said()[0]?.threadId);
    expect(roll('joined')).toEqual([]);
  });

  it('is of its sender where it is to be answered to us, to more than one, or to a list', async () => {
    for (const replyTo of ['hello@porch.example', 'ada@post.example, emlyn@post.example']) {
      await write({ headers: { 'Reply-To': replyTo }, text: replyTo });
    }
    await write({
      headers: { 'Reply-To': 'list@post.example', 'List-Id': '<list.post.example>' },
      text: 'list',
    });
    expect(new Set(said().map(talkOf)).size).toBe(1);
  });

  it('is two mails where other words come under the same name', async () => {
    await write({ messageId: '<same@post.example>', text: 'Do you have two?' });
    await write({ messageId: '<same@post.example>', text: 'Three, I mean.' });
    expect(said().map(({ text }) => text)).toEqual(['Do you have two?', 'Three, I mean.']);
  });

  it('is taken once, by any of its addresses, and for no other', async () => {
    for (let time = 0; time < 2; time += 1) await write({ messageId: '<one@post.example>' });
    await write({ to: 'SHOP@porch.example', messageId: '<two@post.example>', text: 'And one' });
    expect(await write({ to: 'nobody@porch.example' })).toMatch(/550/);
    expect(said().map(({ text }) => text)).toEqual(['Do you have two?', 'And one']);
    expect(new Set(said().map(talkOf)).size).toBe(1);
  });

  it('keeps two mails of two people apart, though one took the other’s id', async () => {
    await write({ messageId: '<same@post.example>' });
    await write({
      from: 'robin@post.example',
      messageId: '<same@post.example>',
      text: 'I am Robin',
    });
    expect(said().map(({ text }) => text)).toEqual(['Do you have two?', 'I am Robin']);
    expect(new Set(said().map(talkOf)).size).toBe(2);
  });

  it('is answered in the thread of mails, and goes on there', async () => {
    await write({ messageId: '<one@post.example>' });
    const mail = await answered();
    expect(mail).toMatchObject({
      envelopeTo: ['wren@post.example'],
      subject: 'Re: Two ferns',
      inReplyTo: '<one@post.example>',
    });
    expect(mail?.text?.trim()).toBe('Yes, two.');
    expect(mail?.headers.get('auto-submitted')).toBeUndefined();
    const to = mail?.replyTo?.value[0]?.address ?? '';
    expect(to).toMatch(/^replies\+/);
    await write({
      to,
      subject: 'Re: Two ferns',
      inReplyTo: mail?.messageId,
      text: `Thank you!\n\nOn Thu, 12 Nov 2026 at 10:07, Quillfern wrote:\n> Yes, two.`,
    });
    expect(said()[1]).toMatchObject({ text: 'Thank you!', hasRest: true });
    expect(said()[1]).not.toHaveProperty('subject');
    expect(talkOf(said()[1])).toBe(talkOf(said()[0]));
    const next = await answered('Come by!');
    expect(next?.references).toEqual(
      expect.arrayContaining(['<one@post.example>', mail?.messageId ?? '']),
    );
    await write({ subject: 'Something else', text: 'Do you repot?' });
    expect(said()[2]).toMatchObject({ subject: 'Something else' });
  });

  it('proves the address by an answer to ours, and joins what is the same person by that', async () => {
    await write({});
    const key = 'wren@post.example';
    expect(house.store.ways.provenBy('email', key)).toEqual([]);
    expect(house.store.ways.by('email', key, 5)).toHaveLength(1);
    const mail = await answered();
    await write({ to: mail?.replyTo?.value[0]?.address, text: 'Good' });
    expect(house.store.ways.provenBy('email', key)).toHaveLength(1);
  });

  it('carries files both ways, and says which could not be had', async () => {
    const attachments = [
      { filename: 'list.txt', content: Buffer.from('two ferns') },
      { filename: 'empty.txt', content: Buffer.alloc(0) },
      { filename: 'whole.bin', content: Buffer.alloc(10_500_000, 1) },
    ];
    await write({ attachments });
    expect(said()[0]).toMatchObject({ files: [{ name: 'list.txt' }], missing: ['whole.bin'] });
    const id = clientId();
    const headers = { 'content-type': 'application/octet-stream', 'x-file-name': 'offer.txt' };
    const body = Buffer.from('one pound');
    await house.ask('PUT', `/api/files/${id}`, { cookie, headers, body });
    await answer('Here', [id]);
    await pass(1);
    const mail = await until(() => out.mails.at(-1));
    expect(mail.attachments).toMatchObject([{ filename: 'offer.txt' }]);
    expect(String(mail.attachments[0]?.content)).toBe('one pound');
  });

  it('has as many messages as its files take, and its words once', async () => {
    const attachments = Array.from({ length: 20 }, (_, nth) => ({
      filename: `leaf-${nth}.txt`,
      content: Buffer.from(`leaf ${nth}`),
    }));
    await write({ attachments, messageId: '<twenty@post.example>' });
    await write({ attachments, messageId: '<twenty@post.example>' });
    const names = said().flatMap(({ files }) => files.map(({ name }) => name));
    expect(names).toEqual(attachments.map(({ filename }) => filename));
    expect(said().filter(({ text }) => text !== '')).toHaveLength(1);
    expect(new Set(said().map(talkOf)).size).toBe(1);
  });

  it('is of whoever handed it over where it names nobody or several, and of nobody where nobody did', async () => {
    const to = 'hello@porch.example';
    const raw = (head: string) => `${head}To: ${to}\r\nSubject: Hi\r\n\r\nHello`;
    const from = 'wren@post.example';
    expect(await post(ours, { envelopeFrom: from, to, raw: raw('') })).toMatch(/^250/);
    const several = raw('From: a@post.example, b@post.example\r\n');
    expect(await post(ours, { envelopeFrom: from, to, raw: several })).toMatch(/^250/);
    const long = raw(`From: ${'a'.repeat(900)}@post.example\r\n`);
    expect(await post(ours, { envelopeFrom: from, to, raw: long })).toMatch(/^250/);
    expect(new Set(said().map(talkOf)).size).toBe(1);
    expect(house.store.threads.byWriter({ doorId, address: from })).not.toBeNull();
    const before = said().length;
    expect(await post(ours, { envelopeFrom: '', to, raw: raw('') })).toMatch(/550/);
    expect(said()).toHaveLength(before);
  });

  it('says all of it where all of it is in the subject, and keeps what is too long', async () => {
    await write({ subject: 'Are you open on Sunday?', text: '' });
    expect(said()[0]).toMatchObject({ text: 'Are you open on Sunday?' });
    expect(await write({ subject: 'word '.repeat(2_000), text: '' })).toMatch(/^250/);
    expect(said()[1]?.text).toHaveLength(399);
    await write({ text: `${'long '.repeat(2_000)}\n\nOn 12/11/2026 10:02, M wrote:\n> quoted` });
    expect(said()[2]?.text).toMatch(/^(long ){799}long$/);
    const path = `/api/conversations/${talkOf(said()[2])}/entries/${said()[2]?.id}/rest`;
    const { text } = (await house.ask('GET', path, { cookie })).body;
    expect(text).toContain('long long');
    expect(text).toContain('> quoted');
  });

  describe('that no person wrote', () => {
    it.each<[string, Partial<Letter>, string]>([
      ['a list', { headers: { 'List-Id': '<growers.post.example>' } }, 'automatic'],
      ['an out-of-office', { headers: { 'Auto-Submitted': 'auto-replied' } }, 'automatic'],
      ['a bounce', { envelopeFrom: '' }, 'automatic'],
      ['junk', { headers: { 'X-Spam-Flag': 'YES' } }, 'junk'],
      ['a forger', { headers: { 'Authentication-Results': 'mx.example; dmarc=fail' } }, 'forged'],
    ])(
      '(%s) does not stand in the line and rings nobody, and can be read',
      async (_who, letter, why) => {
        await write(letter);
        await pass(10 * minute);
        expect(said()).toMatchObject([{ setAside: why, text: 'Do you have two?' }]);
        expect(inGroup('waiting')).toEqual([]);
        expect(inGroup('wrapped-up')).toHaveLength(1);
        expect(inGroup('wrapped-up')[0]?.state).toMatchObject({ unread: [], waitingSince: null });
        expect(roll('rang')).toEqual([]);
        expect(roll('owed')).toEqual([]);
      },
    );

    it('changes nothing of what is owed to a person', async () => {
      await write({});
      const since = inGroup('waiting')[0]?.state.waitingSince;
      await pass(minute);
      await write({ text: 'I am away', headers: { 'Auto-Submitted': 'auto-replied' } });
      expect(inGroup('waiting')[0]?.state).toMatchObject({ waitingSince: since });
      await answered();
      await write({ text: 'I am away', headers: { 'Auto-Submitted': 'auto-replied' } });
      expect(inGroup('answered')).toHaveLength(1);
    });

    it('stands in the line once a person writes after it', async () => {
      await write({ headers: { 'List-Id': '<growers.post.example>' } });
      await write({ text: 'I mean it' });
      expect(inGroup('waiting')).toHaveLength(1);
    });
  });

  it('fails an answer that comes back, and is not said to fail for it', async () => {
    await write({});
    const mail = await answered();
    const to = mail?.replyTo?.value[0]?.address ?? '';
    const status = deliveryReport(to, 'wren@post.example');
    await post(ours, { envelopeFrom: '', to, raw: status });
    expect(roll('receipt').at(-1)).toMatchObject({ step: 'failed', why: 'no-mailbox' });
    expect(house.store.doors.health(doorId).failingSince).toBeNull();
    out.answers.push(550);
    await answer('Again');
    await pass(1);
    await until(() => roll('receipt').find(({ why }) => why === 'mail-refused'));
    expect(house.store.doors.health(doorId).failingSince).toBeNull();
  });

  describe('with pictures that lie elsewhere', () => {
    const at = (name: string, more = ''): string =>
      `<img src="https://pictures.example/${name}" ${more}>`;
    const show = (as = cookie, entry = said()[0]) =>
      house.ask('POST', `/api/conversations/${talkOf(entry)}/entries/${entry?.id}/pictures`, {
        cookie: as,
        body: {},
      });
    const picture = (width: number, height: number) =>
      sharp({ create: { width, height, channels: 3, background: '#3a7' } })
        .png()
        .toBuffer();

    beforeEach(async () => {
      pictures.set('/fern.png', await picture(60, 40));
      pictures.set('/seen.png', await picture(1, 1));
      pictures.set('/page.html', Buffer.from('<html>no picture</html>'));
    });

    it('fetches none of them by itself, and those that are to be seen on demand, once', async () => {
      await write({
        text: undefined,
        html: `<p>Look</p>${at('fern.png')}${at('moved')}${at('fern.png')}${at('gone.png')}${at('page.html')}${at('seen.png')}`,
      });
      expect(said()[0]).toMatchObject({ text: 'Look', pictures: 5, files: [] });
      expect(fetched).toEqual([]);
      const { status, body } = await show();
      expect(status).toBe(200);
      expect(body.files).toHaveLength(2);
      expect(body.files[0]).toMatchObject({ name: 'fern.jpg', picture: { width: 60, height: 40 } });
      expect(body.missing).toBe(2);
      const times = fetched.length;
      expect((await show()).body.files).toEqual(body.files);
      expect(fetched.slice(times)).toEqual(['/gone.png']);
      const file = await house.ask('GET', `/api/files/${body.files[0].id}`, { cookie });
      expect(file.status).toBe(200);
    });

    it('never fetches what is there to tell that a mail was read', async () => {
      await write({
        text: undefined,
        html: `<p>Look</p>${[
          'width="1" height="1"',
          'width=0',
          'style="display:none"',
          'style="width:1px;height:1px"',
          'style="max-height: 0px"',
          'hidden',
          'style="opacity:0"',
        ]
          .map((more) => at('seen.png', more))
          .join('')}<img src="data:image/png;base64,AA=="><img src="cid:x">`,
      });
      expect(said()[0]).not.toHaveProperty('pictures');
      expect((await show()).body).toEqual({ files: [], missing: 0 });
      expect(fetched).toEqual([]);
    });

    it('asks for what is named without encryption by the encrypted way only', async () => {
      await write({
        text: undefined,
        html: '<p>Look</p><img src="http://pictures.example/fern.png">',
      });
      expect((await show()).body.files).toHaveLength(1);
      expect(fetched).toEqual(['/fern.png']);
    });

    it('asks nothing of the network that the house stands in', async () => {
      await write({ text: undefined, html: `<p>Look</p><img src="https://127.0.0.1/a.png">` });
      expect((await show()).body).toEqual({ files: [], missing: 1 });
    });

    it('shows them to the team and to nobody else', async () => {
      await write({ text: undefined, html: `<p>Look</p>${at('fern.png')}` });
      expect((await show('')).status).toBe(401);
      await write({ from: 'robin@post.example', text: 'Another' });
      const [mine, other] = said();
      const path = `/api/conversations/${talkOf(other)}/entries/${mine?.id}/pictures`;
      expect((await house.ask('POST', path, { cookie, body: {} })).status).toBe(404);
    });
  });

  it('says what is missing for it to work', async () => {
    expect((await check()).body.problem).toBeNull();
    const set = (body: object) =>
      house.ask('PUT', '/api/mail', {
        cookie,
        body: {
          outgoing: null,
          incoming: { kind: 'none' },
          outgoingPassword: null,
          incomingPassword: null,
          ...body,
        },
      });
    await doors('PUT', `/${doorId}`, { given: { address: 'hello@elsewhere.example' } });
    expect((await check()).body.problem).toBe('mail-elsewhere');
    await set({});
    expect((await check()).body.problem).toBe('mail-not-set');
    const given = (address: string) => doors('PUT', `/${doorId}`, { given: { address } });
    expect((await given('hello')).body).toMatchObject({ code: 'email-not-understood' });
    expect((await given('')).body).toMatchObject({ code: 'text-empty' });
    expect((await given(Array(11).fill('a@b.example').join())).body.code).toBe('too-many-of-these');
    const other = { kind: 'mail', name: 'Other', given: { address: 'hello@elsewhere.example' } };
    expect((await doors('POST', '', other)).body).toMatchObject({ code: 'address-taken' });
  });

  it('takes nothing in while it is closed', async () => {
    await house.ask('PUT', `/api/doors/${doorId}`, { cookie, body: { isClosed: true } });
    expect(await write({})).toMatch(/550/);
    expect(said()).toEqual([]);
  });
});
