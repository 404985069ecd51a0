import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { type WebSocket, WebSocketServer } from 'ws';

/**
 * The baseline: a bare relay. Each message from a visitor is one durable insert (the same journal
 * and synchronous settings as ours), then goes to the owner's socket and is acknowledged.
 */
const dir = process.env.DATA_DIR ?? mkdtempSync(join(tmpdir(), 'bare-'));
const db = new Database(join(dir, 'bare.sqlite'));
db.pragma('journal_mode = WAL');
db.pragma('synchronous = FULL');
db.exec('CREATE TABLE IF NOT EXISTS messages (seq INTEGER PRIMARY KEY, id TEXT, text TEXT) STRICT');
const insert = db.prepare('INSERT INTO messages (id, text) VALUES (?, ?)');

const server = new WebSocketServer({ port: 0, host: '127.0.0.1' });
let owner: WebSocket | null = null;

server.on('connection', (socket, request) => {
  if (request.url === '/owner') {
    owner = socket;
    return;
  }
  socket.on('message', (data) => {
    const { id, text } = JSON.parse(String(data)) as { id: string; text: string };
    insert.run(id, text);
    owner?.send(JSON.stringify({ say: 'entries', entries: [{ id, text }] }));
    socket.send(JSON.stringify({ say: 'taken', id }));
  });
});
server.on('listening', () => {
  process.send?.({ listening: (server.address() as { port: number }).port });
});
