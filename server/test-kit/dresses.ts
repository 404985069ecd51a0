import type { Dressed } from '@porch/contract/dress';
import type { Dress } from '@porch/core/dress';
import type { House } from './house';

type Changed = { status: number; body: Dressed & { code: string; field: string } };

/** How a test dresses a door as its owner does: a draft, then for all to see. */
export const dressingOf = (house: House, cookie: string, doorId: string) => {
  const at = (what: string): string => `/api/doors/${doorId}/${what}`;
  const look = async (): Promise<Dressed> => (await house.ask('GET', at('dress'), { cookie })).body;
  const save = async (alter: (dress: Dress) => Dress): Promise<Changed> => {
    const { draft, revision } = await look();
    return house.ask('PUT', at('draft'), { cookie, body: { dress: alter(draft), revision } });
  };
  return {
    look,
    save,
    /** Publishes the draft with a change; fails where that is refused. */
    publish: async (alter: (dress: Dress) => Dress): Promise<void> => {
      const { status, body } = await save(alter);
      if (status !== 200) throw new Error(`the draft was refused: ${body.code} at ${body.field}`);
      const { revision } = body;
      await house.ask('POST', at('publish'), { cookie, body: { revision } });
    },
    undo: async (): Promise<Changed> => {
      const { revision } = await look();
      return house.ask('POST', at('undo'), { cookie, body: { revision } });
    },
  };
};

/** Begins a trial of a door's draft, and opens it on one of its websites as its owner does. */
export const openTrial = async (
  house: House,
  cookie: string,
  door: { id: string; publicId: string },
  site: string,
): Promise<void> => {
  const begun = await house.ask('POST', `/api/doors/${door.id}/trial`, { cookie, body: {} });
  const authorization = `Bearer ${begun.body.token}`;
  const opened = await house.ask('GET', `/door/${door.publicId}/trial?language=en`, {
    headers: { origin: site, authorization },
  });
  if (opened.status !== 200) throw new Error(`the trial was refused: ${opened.body.code}`);
};
