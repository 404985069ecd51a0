import type { FromVisitor, ToVisitor } from '@porch/contract/visitor';
import type { Sender } from '../inbox/receive';
import { Refused } from '../refused';
import { hashSecret } from '../security/tokens';
import type { Services } from '../services';
import type { DoorRecord } from '../store';

type Hello = Extract<FromVisitor, { do: 'hello' }>;

export interface Talk {
  /** Does what a panel says. False: it was not let in, and nothing more of it is to be heard. */
  hear(message: FromVisitor): Promise<boolean>;
  end(): void;
}

/** What one panel says on a website door and is told, from its hello to its end, whatever carries it. */
export const openTalk = (
  services: Services,
  door: DoorRecord,
  address: string,
  send: (message: ToVisitor) => void,
): Talk => {
  const { receive, website, presence, hub, reach, lamp, clock, limits } = services;
  let sender: Sender | null = null;
  let leave = (): void => {};
  let hasTalked = false;

  const welcome = (known: Sender, since: number): void => {
    const conversation = receive.conversationOf(known);
    const continued = conversation && website.since(conversation, since);
    const page = continued ??
      (conversation && website.before(conversation, Number.MAX_SAFE_INTEGER)) ?? {
        entries: [],
        hasOlder: false,
        seq: 0,
      };
    const state = conversation?.state;
    send({
      say: 'welcome',
      now: clock.now(),
      lamp: lamp.now(),
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
    });
  };

  const hello = async (message: Hello): Promise<void> => {
    website.openDoor(door.publicId);
    if (message.site) website.refuseUnlisted(door, message.site);
    leave();
    hasTalked = false;
    sender = { doorId: door.id, tokenHash: hashSecret(message.token) };
    receive.conversationOf(sender);
    leave = hub.addPanel({ tokenHash: sender.tokenHash, send });
    welcome(sender, message.since);
    await presence.came(sender);
  };

  const say = async (known: Sender, message: Extract<FromVisitor, { do: 'say' }>) => {
    const waitMs =
      limits.messages.take(known.tokenHash) ||
      (hasTalked || receive.conversationOf(known) ? 0 : limits.newVisitors.take(address));
    if (waitMs) throw new Refused('too-many', { waitMs });
    website.openDoor(door.publicId);
    await receive.message(known, message, true);
    hasTalked = true;
    send({ say: 'taken', id: message.id });
  };

  const check = (known: Sender, message: Extract<FromVisitor, { do: 'check' }>): void => {
    const waitMs = limits.messages.take(known.tokenHash);
    if (waitMs) throw new Refused('too-many', { waitMs });
    receive.check(known, message);
    send({ say: 'taken', id: message.id });
  };

  const details = async (known: Sender, message: Extract<FromVisitor, { do: 'details' }>) => {
    const waitMs = limits.messages.take(known.tokenHash);
    if (waitMs) throw new Refused('too-many', { waitMs });
    const isKnown = await receive.details(known, message.id, message);
    if (!isKnown) throw new Refused('not-found');
    send({ say: 'taken', id: message.id });
  };

  const act = async (message: FromVisitor): Promise<unknown> => {
    if (message.do === 'hello') return hello(message);
    if (message.do === 'pulse') return send({ say: 'pulse' });
    if (!sender) throw new Refused('token-unknown');
    switch (message.do) {
      case 'say':
        return say(sender, message);
      case 'details':
        return details(sender, message);
      case 'check':
        return check(sender, message);
      case 'has':
        return receive.progress(sender, 'visitor-has', message.upTo);
      case 'read':
        return receive.progress(sender, 'visitor-read', message.upTo);
      case 'page':
        return limits.messages.take(`page ${sender.tokenHash}`)
          ? undefined
          : receive.page(sender, message.id, message.page);
      case 'typing': {
        const conversation = receive.conversationOf(sender);
        return conversation && hub.tellTeamTyping(conversation.id);
      }
    }
  };

  return {
    hear: async (message) => {
      try {
        await act(message);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        const id = 'id' in message ? message.id : message.do;
        send({ say: 'refused', id, refusal: error.toRefusal() });
        return message.do !== 'hello';
      }
      return true;
    },
    end: () => {
      leave();
      if (sender) presence.left(sender.tokenHash);
    },
  };
};
