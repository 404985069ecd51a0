import type { FromVisitor, ToVisitor } from '@porch/contract/visitor';
import { isCannotWrite } from '../../disk/disk';
import { Refused } from '../../refused';
import { addressKey } from '../../security/addresses';
import { hashSecret } from '../../security/tokens';
import type { Services } from '../../services';
import { type DoorRecord, writerKey } from '../../store';
import type { Visitor } from './visiting';

type Hello = Extract<FromVisitor, { do: 'hello' }>;

export interface Talk {
  /** Does what a panel says. False: it was not let in, and nothing more of it is to be heard. */
  hear(message: FromVisitor): Promise<boolean>;
  end(): void;
}

/** Whoever has said hello. Another hello makes another one: what was learned of one is not the next one's. */
interface Known extends Visitor {
  /** By which the hub knows them. */
  writer: string;
  hasTalked: boolean;
}

/** What one panel says on a website door and is told, from its hello to its end, whatever carries it. */
export const openTalk = (
  services: Services,
  door: DoorRecord,
  address: string,
  send: (message: ToVisitor) => void,
): Talk => {
  const { visiting, website, presence, hub, reach, lamp, promises, clock, limits, disk, store } =
    services;
  const { finding, dressing, mailSettings } = services;
  let visitor: Known | null = null;
  let leave = (): void => {};

  const welcome = (known: Known, since: number, last: string | null): void => {
    const state = visiting.stateOf(known);
    const continued = state && website.since(state, since, last);
    const page = continued ??
      (state && website.before(state, Number.MAX_SAFE_INTEGER)) ?? {
        entries: [],
        hasOlder: false,
        seq: 0,
        last: null,
      };
    send({
      say: 'welcome',
      now: clock.now(),
      lamp: lamp.atDoor(door.id),
      usual: promises.told(),
      opens: lamp.opensAt(door.id),
      ...page,
      continues: Boolean(continued),
      reached: { hasSeq: reach.hasSeq(), readSeq: state?.teamReadSeq ?? 0 },
      details: {
        name: state?.name ?? '',
        email: state?.email ?? '',
        phone: state?.phone ?? '',
        own: Object.fromEntries((state?.own ?? []).map(({ id, value }) => [id, value])),
      },
      hasConsented: state?.hasConsented ?? false,
      mails: mailSettings.canAnswer(),
    });
  };

  const hello = async (message: Hello): Promise<void> => {
    website.openDoor(door.publicId);
    if (message.site) website.refuseUnlisted(door, message.site);
    const waitMs = limits.hellos.take(addressKey(address));
    if (waitMs) throw new Refused('too-many', { waitMs });
    leave();
    const who = { doorId: door.id, tokenHash: hashSecret(message.token) };
    const writer = writerKey(visiting.writerOf(who));
    const known = { ...who, writer, hasTalked: false };
    visitor = known;
    leave = hub.addPanel({ writer, doorId: door.id, send });
    welcome(known, message.since, message.last ?? null);
    await presence.came(known);
  };

  const refuseFlood = ({ tokenHash }: Known): void => {
    const waitMs = limits.messages.take(tokenHash);
    if (waitMs) throw new Refused('too-many', { waitMs });
  };

  const refuseIfNewInACrowd = (known: Known): void => {
    if (known.hasTalked || visiting.stateOf(known)) return;
    const waitMs = limits.newVisitors.take(addressKey(address));
    if (waitMs) throw new Refused('too-many', { waitMs });
  };

  /** Something that begins a conversation where there is none: it waits its turn, and is taken once it is on disk. */
  const put = async (known: Known, id: string, work: () => Promise<unknown>): Promise<void> => {
    refuseFlood(known);
    refuseIfNewInACrowd(known);
    website.openDoor(door.publicId);
    await work();
    known.hasTalked = true;
    send({ say: 'taken', id });
  };

  const find = ({ id, text, language, for: why }: Extract<FromVisitor, { do: 'find' }>): void =>
    send({
      say: 'found',
      id,
      cards: finding.of(door.id, { text, language, isNote: why === 'note' }),
    });

  const check = (known: Known, message: Extract<FromVisitor, { do: 'check' }>): void => {
    refuseFlood(known);
    visiting.check(known, message);
    send({ say: 'taken', id: message.id });
  };

  const details = async (known: Known, message: Extract<FromVisitor, { do: 'details' }>) => {
    refuseFlood(known);
    const isKnown = await visiting.details(known, message.id, message);
    if (!isKnown) throw new Refused('not-found');
    send({ say: 'taken', id: message.id });
  };

  /** Who tries a draft is only believed where the trial was opened from: its words are nobody else's to read. */
  const tried = <Said extends { isTrial?: boolean }>(said: Said): Said =>
    said.isTrial && !dressing.isTriedFrom(door.id, addressKey(address))
      ? { ...said, isTrial: undefined }
      : said;

  const tellTyping = (known: Known): void => {
    const thread = store.threads.byWriter(visiting.writerOf(known));
    if (thread?.conversationId) hub.tellTeamTyping(thread.conversationId);
  };

  /** What a panel says by itself: too much of it is not done, and nobody has to be told. */
  const isOverdone = (known: Known): boolean => limits.hints.take(known.tokenHash) > 0;

  const act = async (message: FromVisitor): Promise<unknown> => {
    if (message.do === 'hello') return hello(message);
    if (message.do === 'pulse') return send({ say: 'pulse' });
    const known = visitor;
    if (!known) throw new Refused('token-unknown');
    switch (message.do) {
      case 'say':
        return put(known, message.id, () => visiting.message(known, tried(message), true));
      case 'details':
        return details(known, message);
      case 'check':
        return check(known, message);
      case 'order':
        return put(known, message.id, () => visiting.order(known, tried(message), address));
      case 'tap':
        return put(known, message.id, () => visiting.tap(known, tried(message), true));
    }
    if (isOverdone(known)) return;
    switch (message.do) {
      case 'has':
        return visiting.progress(known, 'visitor-has', message.upTo);
      case 'read':
        return visiting.progress(known, 'visitor-read', message.upTo);
      case 'page':
        return visiting.page(known, message.id, message.page);
      case 'typing':
        return tellTyping(known);
      case 'find':
        return find(message);
      case 'enough':
        await visiting.enough(known, message.id);
        return send({ say: 'taken', id: message.id });
    }
  };

  /** What the visitor is to hear of an error; null for nothing. Throws what we did not mean. */
  const refusalOf = (error: unknown, message: FromVisitor): Refused | null => {
    if (error instanceof Refused) return error;
    if (!isCannotWrite(error)) throw error;
    disk.note(error);
    // A hello was answered before anything had to be written; what a panel says by itself it says again.
    return 'id' in message && message.do !== 'page' ? new Refused('cannot-write') : null;
  };

  return {
    hear: async (message) => {
      try {
        await act(message);
      } catch (error) {
        const refused = refusalOf(error, message);
        if (!refused) return true;
        const id = 'id' in message ? message.id : message.do;
        send({ say: 'refused', id, refusal: refused.toRefusal() });
        return message.do !== 'hello';
      }
      return true;
    },
    end: () => {
      leave();
      if (visitor) presence.left(visitor);
    },
  };
};
