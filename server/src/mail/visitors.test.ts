import { createHash } from 'node:crypto';
import { GATHER_MS } from '@porch/core/routes';
import { type MailHouse, openMailHouse } from '../../test-kit/mailed';
import { clientId, until, visit } from '../../test-kit/panel';
import { deliveryReport, type Letter, post } from '../../test-kit/post';

const minute = 60_000;

describe('answers to somebody who has gone', () => {
  let mailed: MailHouse;
  let roll: MailHouse['roll'];
  let out: MailHouse['out'];
  let house: MailHouse['house'];
  let cookie: string;
  let door: { id: string; publicId: string };
  let ours: number;

  beforeEach(async () => {
    mailed = await openMailHouse();
    ({ out, house, cookie, door, ours, roll } = mailed);
  });
  afterEach(() => mailed.close());

  const pass = async (ms: number): Promise<void> => {
    house.clock.advance(ms);
    await house.tick();
    await until(() => (isAtRest() ? true : undefined));
  };
  const talkOfWren = () => house.store.threads.byId(roll('visitor-said')[0]?.threadId ?? '');
  /** Nothing that is due is still to be done. */
  const isAtRest = (): boolean => {
    const job = house.store.jobs.byKey(`visitor-mail ${talkOfWren()?.id}`);
    return !job || (job.state === 'ready' && job.notBefore > house.clock.now());
  };
  const talk = () =>
    (['waiting', 'note', 'answered'] as const).flatMap((group) =>
      house.store.conversations.page(group, null, 1),
    )[0]?.id ?? '';
  const answer = (text: string) =>
    house.ask('POST', `/api/conversations/${talk()}/deeds`, {
      cookie,
      body: { do: 'say', id: clientId(), text, fileIds: [] },
    });
  /** Somebody writes, leaves their address, and perhaps leaves. */
  const writes = async (stays = false, email = 'wren@post.example') => {
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Do you have bonsai?');
    wren.tell({ do: 'details', id: clientId(), name: 'Wren', email });
    await until(() => (roll('details').length > 0 ? true : undefined));
    if (!stays) await leaves(wren);
    return wren;
  };
  const leaves = async (panel: { close(): void }): Promise<void> => {
    panel.close();
    await until(() => (house.services.hub.visitorsHere().length === 0 ? true : undefined));
    await pass(minute);
    expect(roll('gone').length).toBeGreaterThan(0);
  };
  const replies = (letter: Partial<Letter>) => {
    const to = out.mails.at(-1)?.replyTo?.value[0]?.address ?? '';
    return post(ours, { from: 'Wren <wren@post.example>', to, ...letter });
  };

  it('go to them by mail, several in a row as one, with the conversation so far', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS - 1_000);
    await answer('Shall I keep one?');
    await pass(GATHER_MS - 1_000);
    expect(out.mails).toHaveLength(0);
    await pass(1_000);
    const [mail] = out.mails;
    expect(mail).toMatchObject({
      envelopeTo: ['wren@post.example'],
      subject: 'Your message to Quillfern Nursery',
    });
    const text = mail?.text ?? '';
    expect(text.indexOf('We have two.')).toBeGreaterThan(0);
    expect(text.indexOf('Shall I keep one?')).toBeGreaterThan(text.indexOf('We have two.'));
    expect(text.indexOf('Do you have bonsai?')).toBeGreaterThan(text.indexOf('Shall I keep one?'));
    expect(mail?.html).toContain('Shall I keep one?');
    expect(mail?.html).toContain('prefers-color-scheme:dark');
    expect(mail?.headers.get('auto-submitted')).toBeUndefined();
    expect(roll('mailed')).toMatchObject([
      { to: 'wren@post.example', of: [expect.any(Number), expect.any(Number)] },
    ]);
    await pass(60 * minute);
    expect(out.mails).toHaveLength(1);
  });

  it('go by no mail while they are on the page, and after a time once they leave without reading', async () => {
    const wren = await writes(true);
    await answer('We have two.');
    await pass(10 * minute);
    expect(out.mails).toHaveLength(0);
    await leaves(wren);
    await pass(2 * minute);
    expect(out.mails).toHaveLength(1);
  });

  describe('where mail was not set up', () => {
    const setMail = (isOn: boolean) =>
      house.ask('PUT', '/api/mail', {
        cookie,
        body: {
          outgoing: isOn ? out.outgoing : null,
          incoming: isOn ? { kind: 'own', domain: 'porch.example' } : { kind: 'none' },
          outgoingPassword: null,
          incomingPassword: null,
        },
      });
    beforeEach(async () => {
      expect((await setMail(false)).status).toBe(200);
    });
    const owed = async () =>
      (await house.ask('GET', '/api/follow-ups', { cookie })).body.owed.map(
        ({ followUp }: { followUp: { why: string } }) => followUp.why,
      );
    const unreached = () => house.store.conversations.byId(talk())?.state.unreached ?? null;

    it('are still owed, and said not to have been delivered', async () => {
      await writes();
      expect(await owed()).toEqual(['left']);
      await answer('We have two.');
      expect(await owed()).toEqual(['left']);
      await pass(2 * minute);
      const said = roll('team-said')[0]?.seq ?? 0;
      expect(roll('mailed')).toMatchObject([{ of: [said], failed: 'no-mail' }]);
      expect(unreached()).toEqual({ upTo: said, why: 'no-mail' });
      expect(await owed()).toEqual(['left']);
      // Once is enough, also where they look in for a moment and go again before it has come.
      await leaves(await visit(house, door.publicId, 'wren'));
      await pass(3 * 60 * minute);
      expect(roll('mailed')).toHaveLength(1);
    });

    it('become owed where somebody goes before an answer has come to their screen', async () => {
      const wren = await writes(true);
      await answer('We have two.');
      expect(await owed()).toEqual([]);
      await leaves(wren);
      await pass(2 * minute);
      expect(await owed()).toEqual(['bounced']);
      expect(unreached()).toMatchObject({ why: 'no-mail' });
    });

    it('are not owed where they came to the screen before somebody went', async () => {
      const wren = await writes(true);
      await answer('We have two.');
      wren.tell({ do: 'has', upTo: roll('team-said')[0]?.seq ?? 0 });
      await until(() => (roll('visitor-has').length > 0 ? true : undefined));
      await leaves(wren);
      await pass(10 * minute);
      expect(roll('mailed')).toEqual([]);
      expect(await owed()).toEqual([]);
      expect(unreached()).toBeNull();
    });

    it('are done once they come back and have them', async () => {
      await writes();
      await answer('We have two.');
      await pass(2 * minute);
      const wren = await visit(house, door.publicId, 'wren');
      wren.tell({ do: 'has', upTo: roll('team-said')[0]?.seq ?? 0 });
      await until(() => (roll('visitor-has').length > 0 ? true : undefined));
      expect(unreached()).toBeNull();
      expect(await owed()).toEqual([]);
    });

    it('do nothing for a mail of theirs that could not be read, once they come back', async () => {
      await writes();
      await answer('We have two.');
      const conversation = house.store.conversations.byId(talk());
      if (!conversation) throw new Error('there is no conversation');
      const at = house.clock.now() + minute;
      const held = { kind: 'owed' as const, memberId: null, why: 'held' as const, what: '' };
      const happening = { ...held, dueAt: at, remindAt: null, whose: null };
      house.services.writeNow(() => ({
        result: null,
        news: [house.services.record.add(conversation, null, [{ id: clientId(), happening }])],
      }));
      expect((await owed()).sort()).toEqual(['held', 'left']);
      const wren = await visit(house, door.publicId, 'wren');
      wren.tell({ do: 'has', upTo: roll('team-said')[0]?.seq ?? 0 });
      await until(() => (roll('visitor-has').length > 0 ? true : undefined));
      expect(await owed()).toEqual(['held']);
    });

    it('go out by themselves once it is set up, and are done then', async () => {
      await writes();
      await answer('We have two.');
      await pass(2 * minute);
      expect((await setMail(true)).status).toBe(200);
      await pass(minute);
      expect(out.mails).toHaveLength(1);
      expect(out.mails[0]?.text).toContain('We have two.');
      expect(unreached()).toBeNull();
      expect(await owed()).toEqual([]);
    });

    it('are done when whoever is owed them is wrapped up by hand', async () => {
      await writes();
      await answer('We have two.');
      await pass(2 * minute);
      const id = talk();
      const body = { do: 'wrap-up', id: clientId() };
      const done = await house.ask('POST', `/api/conversations/${id}/deeds`, { cookie, body });
      expect(done.status).toBe(200);
      expect(await owed()).toEqual([]);
      expect(house.store.conversations.byId(id)?.state.unreached).toBeNull();
    });
  });

  it('are still owed to somebody who left a telephone number only, and to somebody who wants no mails', async () => {
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Do you have bonsai?');
    wren.tell({ do: 'details', id: clientId(), phone: '07700 900123' });
    await until(() => (roll('details').length > 0 ? true : undefined));
    await leaves(wren);
    await answer('We have two.');
    await pass(2 * minute);
    expect(roll('mailed')).toMatchObject([{ failed: 'no-email' }]);
    const { body } = await house.ask('GET', '/api/follow-ups', { cookie });
    expect(body.owed).toHaveLength(1);

    house.store.visitorMail.stop('sparrow@post.example', house.clock.now());
    const sparrow = await visit(house, door.publicId, 'sparrow');
    await sparrow.say('And ferns?');
    sparrow.tell({ do: 'details', id: clientId(), email: 'sparrow@post.example' });
    await until(() => (roll('details').length > 1 ? true : undefined));
    await leaves(sparrow);
    await answer('Ferns too.');
    await pass(2 * minute);
    await until(() => (roll('mailed').length > 1 ? true : undefined));
    expect(roll('mailed')[1]).toMatchObject({ failed: 'mail-stopped' });
    expect(out.mails).toHaveLength(0);
  });

  it('go by no mail where they were read, nor where they come back in time', async () => {
    const wren = await writes(true);
    await answer('We have two.');
    const seq = roll('team-said')[0]?.seq ?? 0;
    wren.tell({ do: 'read', upTo: seq });
    await until(() => (roll('visitor-read').length > 0 ? true : undefined));
    await leaves(wren);
    await pass(10 * minute);
    expect(out.mails).toHaveLength(0);
  });

  it('go once an address is left after them', async () => {
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Do you have bonsai?');
    await answer('We have two.');
    await leaves(wren);
    await pass(10 * minute);
    expect(out.mails).toHaveLength(0);
    const again = await visit(house, door.publicId, 'wren');
    again.tell({ do: 'details', id: clientId(), email: 'wren@post.example' });
    await until(() => (roll('details').length > 0 ? true : undefined));
    await leaves(again);
    await pass(2 * minute);
    expect(out.mails).toHaveLength(1);
  });

  it('are answered by mail into the same conversation, once, without what is quoted, and stand in the panel', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS);
    const quoted = (out.mails[0]?.text ?? '')
      .split('\n')
      .map((line) => `> ${line}`)
      .join('\n');
    const letter = {
      messageId: '<one@post.example>',
      subject: 'A subject of my own',
      text: `Keep one please\n\nOn Thursday you wrote:\n${quoted}`,
    };
    await replies(letter);
    await replies(letter);
    const said = roll('visitor-said').map(({ text }) => text);
    expect(said).toEqual(['Do you have bonsai?', 'Keep one please']);
    const again = await visit(house, door.publicId, 'wren');
    expect(again.welcome.entries.map(({ text }) => text)).toEqual([
      'Do you have bonsai?',
      'We have two.',
      'Keep one please',
    ]);
    again.close();
    await leaves(again);
    await answer('It is yours.');
    await pass(GATHER_MS);
    const second = out.mails.at(-1);
    expect(second?.subject).toBe('Re: Your message to Quillfern Nursery');
    expect(second?.inReplyTo).toBe('<one@post.example>');
    expect(second?.references).toContain(out.mails[0]?.messageId);
  });

  it('are not taken from another address, from a program, or by a made-up address', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS);
    await replies({ from: 'Else <else@post.example>', text: 'It is me' });
    await replies({ text: 'I am away', headers: { 'Auto-Submitted': 'auto-replied' } });
    const to = `replies+${'a'.repeat(30)}@porch.example`;
    expect(await post(ours, { from: 'wren@post.example', to, text: 'x' })).toMatch(/550/);
    expect(roll('visitor-said')).toHaveLength(1);
    expect(roll('held-back').map(({ why }) => why)).toEqual(['other-address', 'automatic']);
    // What is written to the team of such, with the way to the conversation, goes to no visitor.
    expect(house.store.jobs.isAnyUnder('refusal-mail')).toBe(false);
    expect(out.mails).toHaveLength(1);
    expect(house.store.conversations.counts()).toMatchObject({ waiting: 0, answered: 1 });
  });

  it('are answered at one address, and in good time at a new one: the old one still leads to them', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS);
    const threadId = roll('visitor-said')[0]?.threadId ?? '';
    const address = (): string =>
      house.services.replyAddresses.makeForVisitor(
        'replies@porch.example',
        threadId,
        'wren@post.example',
      )?.address ?? '';
    const first = address();
    house.clock.advance(360 * 24 * 60 * minute);
    expect(address()).toBe(first);
    house.clock.advance(10 * 24 * 60 * minute);
    const second = address();
    expect(second).not.toBe(first);
    expect(address()).toBe(second);
  });

  it('that bounce are said not to have arrived, and are owed again', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS);
    const to = out.mails[0]?.replyTo?.value[0]?.address ?? '';
    const bounce = deliveryReport(to, 'wren@post.example');
    await post(ours, { envelopeFrom: '', to, raw: bounce });
    await post(ours, { envelopeFrom: '', to, raw: bounce });
    expect(roll('mailed').map(({ failed }) => failed)).toEqual([undefined, 'no-mailbox']);
    expect(roll('owed').at(-1)).toMatchObject({ why: 'bounced' });
    expect(roll('visitor-said')).toHaveLength(1);
  });

  it('go nowhere any more once whoever got one says that it is not them', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS);
    const link =
      /http:\/\/porch\.example(\/mail\/stop\/\S+)/.exec(out.mails[0]?.text ?? '')?.[1] ?? '';
    const page = await house.ask('GET', link);
    expect(page.body).toContain('Stop these emails');
    // Programs that look into mails open every link in them: nothing is stopped by that.
    expect(roll('mail-stopped')).toEqual([]);
    // Its own style sheet, and nothing else.
    const style = /<style>(.*?)<\/style>/s.exec(page.body)?.[1] ?? '';
    const hash = createHash('sha256').update(style).digest('base64');
    expect(page.headers['content-security-policy']).toContain(`style-src 'sha256-${hash}'`);
    expect(page.headers['content-security-policy']).toContain("default-src 'none'");
    const stopped = await house.ask('POST', link, {
      headers: {
        'content-type': 'application/x-www-form-urlencoded',
        origin: 'https://mail.example',
      },
      body: 'List-Unsubscribe=One-Click',
    });
    expect(stopped.body).toContain('No more emails come to this address.');
    await answer('Are you there?');
    await pass(60 * minute);
    expect(out.mails).toHaveLength(1);
    // The team reads so before they write, here and wherever that address is left again.
    const threadsOf = async (text: string) => {
      const at = roll('visitor-said').find((one) => one.text === text)?.conversationId;
      return (await house.ask('GET', `/api/conversations/${at}`, { cookie })).body.row.threads;
    };
    expect(await threadsOf('Do you have bonsai?')).toMatchObject([{ isMailStopped: true }]);
    const again = await visit(house, door.publicId, 'tern');
    await again.say('It is me again');
    expect(await threadsOf('It is me again')).toMatchObject([{ isMailStopped: false }]);
    again.tell({ do: 'details', id: clientId(), email: 'WREN@post.example' });
    await until(() => (roll('mail-stopped').length > 1 ? true : undefined));
    expect(await threadsOf('It is me again')).toMatchObject([{ isMailStopped: true }]);
    again.tell({ do: 'details', id: clientId(), name: 'Tern', email: 'wren@post.example' });
    await until(() => (roll('details').length === 3 ? true : undefined));
    await house.ask('POST', link, {
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: 'List-Unsubscribe=One-Click',
    });
    expect(roll('mail-stopped')).toHaveLength(2);
    expect((await house.ask('GET', `/mail/stop/${'a'.repeat(30)}`)).body.code).toBe('link-stale');
  });

  it('wait while the mail server is away, and all go out then, once', async () => {
    await writes();
    out.answers.push(451, 451, 451);
    await answer('We have two.');
    await pass(GATHER_MS);
    for (let hours = 0; hours < 24 && out.mails.length === 0; hours += 1) await pass(60 * minute);
    expect(out.mails).toHaveLength(1);
    await pass(24 * 60 * minute);
    expect(out.mails).toHaveLength(1);
    expect(roll('mailed')).toHaveLength(1);
  });

  it('that went without its being heard go again under the same name, and are noted once', async () => {
    await writes();
    out.lost.push(451);
    await answer('We have two.');
    await pass(GATHER_MS);
    for (let tries = 0; tries < 10 && out.mails.length < 2; tries += 1) await pass(minute);
    expect(out.mails).toHaveLength(2);
    const names = out.mails.map(({ messageId }) => messageId);
    expect(new Set(names).size).toBe(1);
    expect(roll('mailed')).toHaveLength(1);
  });

  it('that went without its being heard go again as they were, and what was said meanwhile after them', async () => {
    await writes();
    out.lost.push(451);
    await answer('We have two.');
    await pass(GATHER_MS);
    await until(() => (out.mails.length === 1 ? true : undefined));
    await answer('And one more.');
    for (let tries = 0; tries < 10 && out.mails.length < 3; tries += 1) await pass(minute);
    const [first, again, next] = out.mails;
    expect(again?.messageId).toBe(first?.messageId);
    expect(again?.text).toBe(first?.text);
    expect(next?.messageId).not.toBe(first?.messageId);
    expect(next?.text).toContain('And one more.');
    await pass(60 * minute);
    expect(out.mails).toHaveLength(3);
  });

  it('go once where the server takes nine minutes to say that it has them (RFC 5321, 4.5.3.2.6)', async () => {
    await writes();
    out.slow.isOn = true;
    await answer('We have two.');
    house.clock.advance(GATHER_MS);
    void house.tick();
    await until(() => (out.began() === 1 && out.mails.length === 1 ? true : undefined));
    for (let passed = 0; passed < 9; passed += 1) {
      house.clock.advance(minute);
      await house.tick();
    }
    expect(out.began()).toBe(1);
    out.slow.isOn = false;
    out.release();
    await until(() => (roll('mailed').length > 0 ? true : undefined));
    await pass(60 * minute);
    expect(out.mails).toHaveLength(1);
  });

  it('are answered to the plain address too, where the answer says what it answers', async () => {
    await writes();
    await answer('We have two.');
    await pass(GATHER_MS);
    await until(() => (out.mails.length === 1 ? true : undefined));
    const inReplyTo = out.mails[0]?.messageId ?? '';
    const to = 'replies@porch.example';
    const said = () => roll('visitor-said').length;
    const before = said();
    expect(await replies({ to, inReplyTo, text: 'Two, please.' })).toMatch(/^250/);
    expect(roll('visitor-said').at(-1)).toMatchObject({ text: 'Two, please.' });
    // Of somebody else it is no answer, nor of what we never wrote.
    const other = { to, text: 'Three.', from: 'ada@post.example', inReplyTo };
    expect(await replies(other)).toMatch(/550/);
    expect(await replies({ to, text: 'Four.', inReplyTo: '<none@porch.example>' })).toMatch(/550/);
    expect(said()).toBe(before + 1);
  });

  it('go in the language in which the door spoke to them, and no other', async () => {
    const wren = await writes(true);
    wren.tell({
      do: 'say',
      id: clientId(),
      text: 'Haben Sie Bonsai?',
      fileIds: [],
      page: null,
      language: 'de',
    });
    await until(() => (roll('visitor-said').length === 2 ? true : undefined));
    await leaves(wren);
    await answer('Zwei haben wir.');
    await pass(GATHER_MS);
    expect(out.mails[0]?.subject).toBe('Ihre Nachricht an Quillfern Nursery');
    expect(out.mails[0]?.text).toMatch(/Sie, .*\nHaben Sie Bonsai\?/);
    const link = /http:\/\/porch\.example(\/mail\/stop\/\S+)/.exec(out.mails[0]?.text ?? '')?.[1];
    const page = await house.ask('GET', link ?? '', {
      headers: { 'accept-language': 'de-AT, en' },
    });
    expect(page.body).toContain('E-Mails abstellen');
  });
});
