import { networkOrKept, PATIENCE_MS } from './network-or-kept';

const page = { request: {} as Request };
const answering = (status: number) => ({ status }) as Response;
const kept = answering(200);

const serve = (network: Promise<Response>, hasKept = true) => {
  let giveUp = (): void => {};
  const answer = networkOrKept({
    fetch: () => network,
    kept: async () => (hasKept ? kept : undefined),
    wait: (done, ms) => {
      expect(ms).toBe(PATIENCE_MS);
      giveUp = done;
    },
  })(page);
  return { answer, giveUp };
};

describe('the page of the app', () => {
  it('comes from the network while there is one, also when it says no', async () => {
    const fresh = answering(200);
    expect(await serve(Promise.resolve(fresh)).answer).toBe(fresh);
    const missing = answering(404);
    expect(await serve(Promise.resolve(missing)).answer).toBe(missing);
  });

  it('comes from what was kept without signal, and where the server is down behind its proxy', async () => {
    expect(await serve(Promise.reject(new Error('no signal'))).answer).toBe(kept);
    expect(await serve(Promise.resolve(answering(502))).answer).toBe(kept);
  });

  it('does not wait for a network that keeps still', async () => {
    const { answer, giveUp } = serve(new Promise(() => {}));
    giveUp();
    expect(await answer).toBe(kept);
  });

  it('is the network’s own answer, or error, where nothing was kept', async () => {
    const broken = answering(503);
    expect(await serve(Promise.resolve(broken), false).answer).toBe(broken);
    await expect(serve(Promise.reject(new Error('no signal')), false).answer).rejects.toThrow(
      'no signal',
    );
  });
});
