// What a running server serves and starts: a copy of its own, so that whatever is built meanwhile is not in its way.
import { cpSync, mkdirSync, readdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';

/** Beside the server, so that its packages are found from there. */
const FOLDER = join('server', '.running');

const isAlive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
};

/** What a server left behind that was killed. */
const tidy = () => {
  for (const name of readdirSync(FOLDER)) {
    if (!isAlive(Number(name))) rmSync(join(FOLDER, name), { recursive: true, force: true });
  }
};

/**
 * Copies what is built for one server, and gives where its program lies and what it is to be told of the rest. Where
 * nothing can be written there (the files are somebody else's), it runs from where they are.
 */
export const ownFiles = () => {
  const own = join(FOLDER, `${process.pid}`);
  const parts = ['server', 'app', 'widget'];
  try {
    mkdirSync(FOLDER, { recursive: true });
    tidy();
    for (const part of parts) cpSync(join(part, 'dist'), join(own, part), { recursive: true });
  } catch (error) {
    rmSync(own, { recursive: true, force: true });
    process.stderr.write(`The server runs from where it is built (${error.message}).\n`);
    return { main: join('server', 'dist', 'main.js'), env: {} };
  }
  process.once('exit', () => rmSync(own, { recursive: true, force: true }));
  const env = { APP_DIR: join(own, 'app'), WIDGET_DIR: join(own, 'widget'), ...process.env };
  return { main: join(own, 'server', 'main.js'), env };
};
