/** So many rows has a table that is read in. */
const ROWS = 100_000;
const PAUSE_MS = 20;
const IDLE_ASKED = 100;

const madeUp = {
  shelf: {
    path: '/api/shelf-tables?as=csv',
    head: 'name,sku,price,stock,link,text',
    row: (at: number): string =>
      `Plant number ${at},AB-${at},${1 + (at % 90)}.50,yes,https://bench.example/${at},Grows well in a pot of size ${at % 40}`,
  },
  orders: {
    path: '/api/orders/table',
    head: 'number,email,state,expected,link',
    row: (at: number): string =>
      `AB-${at},p${at}@post.example,Packed,2026-12-0${1 + (at % 9)},https://carrier.example/${at}`,
  },
} as const;

/**
 * How long a request takes beside nothing, and while a table of 100,000 rows is read in: sorted milliseconds. `tookMs`:
 * how long the table took; `taken`: how many of its rows were.
 */
export const besideTable = async (
  { listening, cookie = '' }: { listening: number; cookie?: string },
  which: keyof typeof madeUp,
) => {
  const origin = `http://127.0.0.1:${listening}`;
  const headers = { origin, cookie };
  const ask = async (): Promise<number> => {
    const begin = performance.now();
    const response = await fetch(`${origin}/api/me`, { headers });
    await response.text();
    const took = performance.now() - begin;
    await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    return took;
  };
  const idle: number[] = [];
  for (let count = 0; count < IDLE_ASKED; count += 1) idle.push(await ask());

  const { path, head, row } = madeUp[which];
  const body = [head, ...Array.from({ length: ROWS }, (_none, at) => row(at))].join('\r\n');
  const began = performance.now();
  let isDone = false;
  const type = { 'content-type': 'application/octet-stream' };
  const taking = fetch(origin + path, { method: 'POST', headers: { ...headers, ...type }, body })
    .then((response) => response.json() as Promise<{ addedCount: number }>)
    .finally(() => {
      isDone = true;
    });
  const busy: number[] = [];
  while (!isDone) busy.push(await ask());
  const { addedCount } = await taking;
  const sorted = (all: number[]): number[] => all.sort((one, other) => one - other);
  return {
    idle: sorted(idle),
    busy: sorted(busy),
    tookMs: performance.now() - began,
    isWhole: addedCount === ROWS,
  };
};

export const tables = Object.keys(madeUp) as (keyof typeof madeUp)[];
