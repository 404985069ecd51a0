import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { FOLD_VERSION, groups } from '@porch/core/conversation';
import Database from 'better-sqlite3';
import { version } from '../../package.json';
import {
  liveAnswered,
  liveChanged,
  liveOwed,
  liveRung,
  liveThrough,
  liveTogether,
  snails,
} from './every-kind';
import { openHouse } from './house';
import { visit } from './panel';
import { openPushService } from './push-service';

/**
 * Keeps the data file that this release leaves, with everything in it that can happen, and what it answers for
 * it: every later one must read it. Run it once a release: `npm run keep-release`.
 */
const keepRelease = async (): Promise<void> => {
  const folder = 'server/src/store/releases';
  const place = join(folder, `${version}.sqlite.gz`);
  if (existsSync(place)) throw new Error(`${place} is kept already: a release is made once`);
  const path = join(tmpdir(), `porch-${version}-${process.pid}.sqlite`);
  const push = await openPushService();
  const house = await openHouse({ pushNear: [push.origin] }, path, { doorKinds: [snails] });
  const { cookie } = await liveThrough(house);
  await liveTogether(house, cookie);
  await liveRung(house, cookie, push);
  await liveOwed(house, cookie);
  await liveChanged(house);
  await liveAnswered(house, cookie);
  const get = async (url: string) => (await house.ask('GET', url, { cookie })).body;
  const rows: { id: string }[] = [];
  for (const group of groups) rows.push(...(await get(`/api/line?group=${group}`)).rows);
  const rolls: unknown[] = [];
  for (const { id } of rows) rolls.push((await get(`/api/conversations/${id}`)).entries);
  const [door] = house.store.doors.all();
  const { welcome } = await visit(house, door?.publicId ?? '', 'wren');
  await house.close();
  await push.close();
  const db = new Database(path);
  db.pragma('journal_mode = DELETE');
  db.exec('VACUUM');
  writeFileSync(place, gzipSync(db.serialize(), { level: 9 }));
  db.close();
  rmSync(path);
  const answered = { foldVersion: FOLD_VERSION, rows, rolls, seen: welcome.entries };
  writeFileSync(join(folder, `${version}.json`), `${JSON.stringify(answered, null, 2)}\n`);
};

keepRelease();
