/** A network that answers nothing for this long is taken for none. */
export const PATIENCE_MS = 4_000;

const BROKEN_FROM = 500;

/**
 * Answers from the network; where it fails, is broken (a proxy whose server is down) or keeps still for
 * four seconds, with what was kept. Nothing kept: the network's own answer or error.
 */
export const networkOrKept =
  (means: {
    fetch: (request: Request) => Promise<Response>;
    kept: () => Promise<Response | undefined>;
    wait: (done: () => void, ms: number) => unknown;
  }) =>
  async ({ request }: { request: Request }): Promise<Response> => {
    const answer = means.fetch(request);
    const isSilent = new Promise<null>((resolve) => means.wait(() => resolve(null), PATIENCE_MS));
    const first = await Promise.race([answer.catch(() => null), isSilent]);
    if (first && first.status < BROKEN_FROM) return first;
    return (await means.kept()) ?? first ?? answer;
  };
