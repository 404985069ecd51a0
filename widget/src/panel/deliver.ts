import type { HeldFile } from '@porch/client/files';
import { errorStatus, isErrorCode, isWorthRetrying, type Refusal } from '@porch/contract/errors';
import type { FromVisitor } from '@porch/contract/visitor';
import type { Given, PanelParcel } from './parcels';

/** What the server said to an attempt; `held-up`: it is there and cannot write. */
export type Answer = 'arrived' | 'not-now' | 'held-up' | Refusal;

const ANSWER_LONGEST_MS = 15_000;

export interface Errand {
  door: string;
  token: string;
  site: string;
  /** In which language the visitor agreed to be kept; null: they were not asked. */
  consent: string | null;
  /** By which this browser is known at all doors of the house. */
  device: string;
  /** In which language the door speaks to them; absent while it is not dressed. */
  language?: string;
  /** Its owner tries a draft. */
  isTrial?: true;
  send(message: FromVisitor): boolean;
}

/** Of which order it is asked, and whose it is. */
export type OrderQuestion = Pick<
  Extract<FromVisitor, { do: 'order' }>,
  'number' | 'contact' | 'page' | 'greeted'
>;

const toDetails = ({ own, ...said }: Given) => ({
  ...said,
  own: own && Object.entries(own).map(([id, value]) => ({ id, value })),
});

/** What is against a file. Something between us and the house may answer in its own words: its status is what counts. */
const refusalOf = async (response: Response, { blob }: HeldFile): Promise<Refusal> => {
  const refusal = (await response.json().catch(() => null)) as Refusal | null;
  if (refusal && isErrorCode(refusal.code)) return refusal;
  return response.status === 413
    ? { code: 'too-large', limit: Math.max(1, blob.size - 1) }
    : { code: 'our-fault' };
};

const upload = async (errand: Errand, file: HeldFile): Promise<Answer> => {
  try {
    const response = await fetch(`/door/${errand.door}/files/${file.id}`, {
      method: 'PUT',
      headers: {
        authorization: `Bearer ${errand.token}`,
        'content-type': 'application/octet-stream',
        'x-file-name': encodeURIComponent(file.name),
        'x-site': errand.site,
        ...(errand.consent ? { 'x-consent': errand.consent } : {}),
      },
      body: file.blob,
    });
    if (response.ok) return 'arrived';
    if (response.status === errorStatus['cannot-write']) return 'held-up';
    if (isWorthRetrying(response.status)) return 'not-now';
    return await refusalOf(response, file);
  } catch {
    return 'not-now';
  }
};

/** Sends parcels over the socket, files first; each waits for the server's word that it is on disk. */
export const createDelivery = (errand: Errand) => {
  const waiting = new Map<string, (outcome: Answer) => void>();

  const awaitAnswer = (id: string): Promise<Answer> =>
    new Promise((resolve) => {
      const timer = setTimeout(() => settle(id, 'not-now'), ANSWER_LONGEST_MS);
      waiting.set(id, (outcome) => {
        clearTimeout(timer);
        resolve(outcome);
      });
    });

  const settle = (id: string, outcome: Answer): void => {
    waiting.get(id)?.(outcome);
    waiting.delete(id);
  };

  /** What goes with whatever begins a conversation. */
  const from = () => ({
    zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    language: errand.language,
    consent: errand.consent,
    device: errand.device,
    isTrial: errand.isTrial,
  });

  const deliver = async ({ id, load }: PanelParcel): Promise<Answer> => {
    if (load.do === 'details') {
      const message: FromVisitor = { ...toDetails(load), do: 'details', id };
      const outcome = errand.send(message) ? await awaitAnswer(id) : 'not-now';
      // A crowd passes; what somebody said of themselves waits without being asked for again.
      return typeof outcome === 'object' && outcome.code === 'too-many' ? 'not-now' : outcome;
    }
    if (load.do === 'tap') {
      const { card, page, greeted } = load;
      return errand.send({ do: 'tap', id, card, page, greeted, ...from() })
        ? awaitAnswer(id)
        : 'not-now';
    }
    for (const file of load.files) {
      const outcome = await upload(errand, file);
      if (outcome !== 'arrived') return outcome;
    }
    const fileIds = load.files.map((file) => file.id);
    const { text, page, callBack, greeted } = load;
    const said = { text, fileIds, page, callBack, greeted };
    const message: FromVisitor = { do: 'say', id, ...said, ...from() };
    return errand.send(message) ? awaitAnswer(id) : 'not-now';
  };

  return {
    deliver,
    settle,
    /** Says that a card answered it; whether that was heard. */
    enough: async (id: string): Promise<boolean> =>
      errand.send({ do: 'enough', id }) && (await awaitAnswer(id)) === 'arrived',
    /** Asks where an order is; null where it stands on the roll, what is against it otherwise. */
    order: async (id: string, asked: OrderQuestion): Promise<Refusal | null> => {
      if (!errand.send({ do: 'order', id, ...asked, ...from() })) return { code: 'order-not-now' };
      const outcome = await awaitAnswer(id);
      if (outcome === 'arrived') return null;
      return typeof outcome === 'object' ? outcome : { code: 'order-not-now' };
    },
    /** Asks whether details could be kept; null when they could, or when nobody can be asked now. */
    check: async (id: string, given: Given): Promise<Refusal | null> => {
      if (!errand.send({ ...toDetails(given), do: 'check', id })) return null;
      const outcome = await awaitAnswer(id);
      return typeof outcome === 'object' && outcome.code !== 'too-many' ? outcome : null;
    },
    /** The connection broke: nothing more will be heard of what was on its way. */
    giveUp: (): void => {
      for (const id of [...waiting.keys()]) settle(id, 'not-now');
    },
  };
};
