import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { BridgeInSchema, BridgeOutSchema } from '@porch/contract/bridge';
import { openHouse } from '../../../test-kit/house';
import { freePort } from '../../../test-kit/ports';
import { conformance, type Finding } from './conformance';
import { newKey } from './signing';

const findings = async (url: string, key: string, port: number, waitMs: number) => {
  const found: Finding[] = [];
  for await (const one of conformance({ url, key, to: 'wren', port, waitMs })) found.push(one);
  return found;
};

describe('the open contract', () => {
  it('is there to be read as JSON Schema, with every word that either side may say', async () => {
    const house = await openHouse();
    const { status, body } = await house.ask('GET', '/door-contract.json');
    await house.close();
    expect(status).toBe(200);
    const said = JSON.stringify(body);
    for (const { shape } of [...BridgeInSchema.options, ...BridgeOutSchema.options]) {
      expect(said).toContain(`"const":"${shape.type.value}"`);
    }
  });

  it('is kept by the example that ships with the docs', async () => {
    const [at, port] = [await freePort(), await freePort()];
    const key = newKey();
    const env = { ...process.env, PORCH: `http://127.0.0.1:${port}/in/check`, KEY: key };
    const bridge = spawn('node', ['docs/examples/bridge.mjs'], {
      env: { ...env, PORT: String(at) },
      stdio: ['pipe', 'pipe', 'inherit'],
    });
    await once(bridge.stdout, 'data');
    const found = await findings(`http://127.0.0.1:${at}/`, key, port, 20_000);
    bridge.kill();
    await once(bridge, 'exit');
    expect(found.filter(({ wrong }) => wrong !== null)).toEqual([]);
    expect(found).toHaveLength(12);
  });

  it('is not kept by one that takes everything, and each thing is said', async () => {
    const port = await freePort();
    const careless = createServer((_request, response) => response.end('{"id":"x"}'));
    await new Promise<void>((listening) => careless.listen(0, '127.0.0.1', listening));
    const { port: at } = careless.address() as AddressInfo;
    const found = await findings(`http://127.0.0.1:${at}/`, newKey(), port, 200);
    careless.close();
    expect(found.filter(({ wrong }) => wrong !== null).map(({ what }) => what)).toEqual([
      'says what its network can do',
      'takes nothing by another key',
      'takes nothing that was signed long ago',
      'takes nothing that was changed on the way',
      'takes nothing that is not signed',
      'says what became of the message',
      'proves what it hands over',
      'hands over in the form of the contract',
      'hands over again what was not taken, under the same id',
    ]);
  });
});
