import { existsSync, mkdtempSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type House, openHouse, setUp } from '../../test-kit/house';
import { openDevice, visit } from '../../test-kit/panel';
import { backUp, restore } from './backup';
import { holdFolder } from './hold';

describe('a backup', () => {
  let dir: string;
  let house: House;
  const place = () => join(dir, 'porch.sqlite');
  const backup = () => join(dir, 'kept', 'monday.sqlite');
  beforeEach(async () => {
    dir = mkdtempSync(join(tmpdir(), 'backup-'));
    house = await openHouse({}, place());
  });
  afterEach(() => rmSync(dir, { recursive: true, force: true }));

  it('is whole, checked and nobody else’s to read, while the house is being written', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Before');
    const coming = backUp(place(), backup());
    await panel.say('Meanwhile');
    const { conversations, entries } = await coming;
    expect(conversations).toBe(1);
    expect(entries).toBeGreaterThanOrEqual(2);
    expect((statSync(backup()).mode & 0o777).toString(8)).toBe('600');
    expect(readdirSync(join(dir, 'kept'))).toEqual(['monday.sqlite']);
    await house.close();
  });

  it('is not made over another one, nor of nothing', async () => {
    await backUp(place(), backup());
    await expect(backUp(place(), backup())).rejects.toThrow(/is there already/);
    await expect(backUp(join(dir, 'no.sqlite'), join(dir, 'x.sqlite'))).rejects.toThrow(
      /there is no/,
    );
    await house.close();
  });

  it('is put back whole, and what was there stays beside it', async () => {
    const { door } = await setUp(house);
    const panel = await visit(house, door.publicId, 'wren');
    await panel.say('Before');
    await backUp(place(), backup());
    await panel.say('After the backup');
    await house.close();
    const { aside } = restore(dir, backup(), 'now');
    const again = await openHouse({}, place());
    const texts = (one: House) =>
      one.store.entries
        .since(0, 100)
        .flatMap((entry) => (entry.kind === 'visitor-said' ? [entry.text] : []));
    expect(texts(again)).toEqual(['Before']);
    await again.close();
    const before = await openHouse({}, join(dir, aside ?? ''));
    expect(texts(before)).toEqual(['Before', 'After the backup']);
    await before.close();
  });

  it('is not put back when it is damaged, cut off, something else, or somebody holds the folder', async () => {
    await setUp(house);
    await backUp(place(), backup());
    await house.close();
    const intact = statSync(place()).size;
    const broken = join(dir, 'broken.sqlite');
    for (const [bytes, why] of [
      ['not a database at all, whatever it is called', /not a database/],
      ['', /not the data of a Hello Porch/],
    ] as const) {
      writeFileSync(broken, bytes);
      expect(() => restore(dir, broken, 'now')).toThrow(why);
    }
    const letGo = holdFolder(dir);
    expect(() => restore(dir, backup(), 'now')).toThrow(/already runs/);
    letGo();
    expect(statSync(place()).size).toBe(intact);
    expect(existsSync(join(dir, 'before-restore-now.sqlite'))).toBe(false);
  });

  it('leads every device to read anew, though the seqs that it knows are given again', async () => {
    const { door, cookie } = await setUp(house);
    const wren = await visit(house, door.publicId, 'wren');
    await wren.say('Before');
    const conversation = house.store.conversations.page('waiting', null, 1)[0]?.id ?? '';
    await backUp(place(), backup());
    for (const text of ['Lost one', 'Lost two', 'Lost three']) await wren.say(text);
    const device = await openDevice(house, cookie);
    const lost = await wren.hear('entries', ({ entries }) => entries[0]?.text === 'Lost three');
    await house.close();

    restore(dir, backup(), 'now');
    const again = await openHouse({}, place());
    const robin = await visit(again, door.publicId, 'robin');
    for (let count = 0; count < 6; count += 1) await robin.say(`New ${count}`);
    expect(again.store.entries.newestSeq()).toBeGreaterThan(device.welcome.seq);

    // By its seq alone the device would have missed what stands there now.
    const blind = await openDevice(again, cookie, device.welcome.seq);
    expect(blind.welcome.isTooMuch).toBe(false);
    const seeing = await openDevice(again, cookie, device.welcome.seq, device.welcome.last);
    expect(seeing.welcome).toMatchObject({ isTooMuch: true, entries: [] });
    const { body } = await again.ask(
      'GET',
      `/api/since?seq=${device.welcome.seq}&last=${device.welcome.last}`,
      { cookie },
    );
    expect(body.isTooMuch).toBe(true);

    // The visitor's panel as well: what it shows is what the house has.
    const back = await visit(again, door.publicId, 'wren', lost.seq, lost.last);
    expect(back.welcome.continues).toBe(false);
    expect(back.welcome.entries.map(({ text }) => text)).toEqual(['Before']);

    // Also once so much was said anew that its old number lies in the middle of it.
    while ((again.store.conversations.byId(conversation)?.state.lastSeq ?? 0) <= lost.seq + 2) {
      await back.say('New words');
    }
    const late = await visit(again, door.publicId, 'wren', lost.seq, lost.last);
    expect(late.welcome.continues).toBe(false);
    expect(late.welcome.entries.map(({ text }) => text)).not.toContain('Lost three');
    expect(late.welcome.entries.length).toBeGreaterThan(1);

    // Whoever has what the house has goes on from there.
    const current = await openDevice(again, cookie, seeing.welcome.seq, seeing.welcome.last);
    expect(current.welcome.isTooMuch).toBe(false);
    await again.close();
  });
});
