import type { Entry } from '@porch/core/conversation';
import { openHouse, setUp } from './house';
import { type Happening, type MadeNetwork, networkOutside } from './networks';
import { clientId, until } from './panel';

/** Waits until something is so; fails after twenty seconds. */
export const becomes = (isSo: () => boolean): Promise<true> => until(() => isSo() || undefined);

/** A house with a door to a network, and the network's end of the line. */
export const openNetworkHouse = async (network: MadeNetwork) => {
  const far = networkOutside(network);
  const settings = { publicOrigin: 'http://porch.example' };
  const house = await openHouse(settings, ':memory:', { outside: far.outside });
  const { cookie } = await setUp(house);
  const { kind, given } = network;

  const doors = (method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: object) =>
    house.ask(method, `/api/network-doors${path}`, { cookie, ...(body ? { body } : {}) });
  const made = await doors('POST', '', { kind, name: 'Far', given });
  if (made.status !== 200) throw new Error(`the door was not made: ${made.body.code}`);
  const doorId: string = made.body.id;
  const word: string = made.body.shows.word;
  const address = new URL(made.body.shows.address).pathname;

  const handBody = (body: string, by = word, to = address) =>
    house.ask('POST', to, { body, headers: network.prove(body, by, house.clock.now()) });

  const isQuiet = (): boolean =>
    [`pull ${doorId}`, `pull ${doorId} then`].every((key) => !house.store.jobs.byKey(key));

  /** Hands something over, and lets what follows from it happen; null: the network has no such thing. */
  const hand = async (happening: Happening, agoMs = 0) => {
    const body = network.body(happening, house.clock.now() - agoMs);
    if (body === null) return null;
    const { status } = await handBody(body);
    await house.tick();
    await becomes(isQuiet);
    return status;
  };

  const roll = <Kind extends Entry['kind']>(what: Kind) =>
    house.store.entries
      .since(0, 500)
      .filter((entry): entry is Extract<Entry, { kind: Kind }> => entry.kind === what);
  /** Somebody else who writes there, without having been heard by the network's own words. */
  const otherWriter = (): string => {
    const writer = { doorId, from: `${network.from}9`, networkId: `other-${clientId()}` };
    house.services.writeNow(() =>
      house.services.receive.inboundNow({
        ...writer,
        name: 'Other',
        text: 'Me too',
        fileIds: [],
        proves: [],
      }),
    );
    return roll('visitor-said').at(-1)?.conversationId ?? '';
  };

  const talk = (): string => roll('visitor-said')[0]?.conversationId ?? '';

  return {
    far,
    house,
    cookie,
    doors,
    doorId,
    word,
    address,
    handBody,
    isQuiet,
    hand,
    says: (id: string, agoMs = 0, more: object = {}) =>
      hand({ what: 'said', id, text: `Words of ${id}`, ...more }, agoMs),
    roll,
    talk,
    otherWriter,
    answerTo: (conversationId: string, text: string) =>
      house.ask('POST', `/api/conversations/${conversationId}/deeds`, {
        cookie,
        body: { do: 'say', id: clientId(), text, fileIds: [] },
      }),
    /** Nothing is on its way just now; what waits for another try may be. */
    isAtRest: (): boolean => !house.store.jobs.isAnyLeased(),
    answer: (text = 'Yes', more: object = {}) =>
      house.ask('POST', `/api/conversations/${talk()}/deeds`, {
        cookie,
        body: { do: 'say', id: clientId(), text, fileIds: [], ...more },
      }),
    steps: (): string[] => roll('receipt').map(({ step }) => step),
  };
};

export type NetworkHouse = Awaited<ReturnType<typeof openNetworkHouse>>;
