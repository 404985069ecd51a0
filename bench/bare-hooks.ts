import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import Fastify from 'fastify';

/** The baseline: a bare route that inserts a body durably (the same journal as ours) and says so. */
const dir = process.env.DATA_DIR ?? mkdtempSync(join(tmpdir(), 'bare-'));
const db = new Database(join(dir, 'bare.sqlite'));
db.pragma('journal_mode = WAL');
db.pragma('synchronous = FULL');
db.exec('CREATE TABLE hooks (seq INTEGER PRIMARY KEY, body BLOB) STRICT');
const insert = db.prepare('INSERT INTO hooks (body) VALUES (?)');

const app = Fastify();
app.removeAllContentTypeParsers();
app.addContentTypeParser('*', { parseAs: 'buffer' }, (_request, body, done) => done(null, body));
app.post('/in', async (request, reply) => {
  insert.run(request.body);
  return reply.status(204).send();
});
await app.listen({ port: 0, host: '127.0.0.1' });
process.send?.({ listening: (app.server.address() as { port: number }).port });
