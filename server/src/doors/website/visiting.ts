import { toE164, toEmail } from '@porch/core/contact';
import type { CallBack, Details, OwnAnswer, Page, ThreadState } from '@porch/core/conversation';
import { languagesOf } from '@porch/core/dress';
import { DRESS_LIMITS } from '@porch/core/dress/limits';
import { isContact, ORDER_NUMBER_LONGEST, orderInWords, orderKey } from '@porch/core/orders';
import { OWED_AHEAD_MS } from '@porch/core/promises';
import { cleanLine, EMAIL_LONGEST, NAME_LONGEST, PHONE_LONGEST } from '@porch/core/text';
import type { AskedOften } from '../../cards/cards';
import type { Clock } from '../../clock';
import type { Dressing } from '../../dress/dressing';
import { voiceOf } from '../../dress/voice';
import type { Greetings } from '../../greetings/greetings';
import type { Receive } from '../../inbox/receive';
import type { Recording } from '../../inbox/record';
import { cleanPage, type Message } from '../../inbox/said';
import { isSameDetails } from '../../inbox/same';
import type { OrdersOf } from '../../orders/orders';
import { Refused } from '../../refused';
import { addressKey } from '../../security/addresses';
import { hashSecret, newId } from '../../security/tokens';
import type { Signs } from '../../signs/signs';
import type { Store, ThreadRecord, Writer } from '../../store';
import { type Proved, provedPerson } from './signed';

/** Somebody on a website: known by the hash of a token that their browser has made. */
export interface Visitor {
  doorId: string;
  tokenHash: string;
}

/** What a visitor says, and in which language they agreed to be kept; null: they did not, or were not asked. */
export interface VisitorMessage
  extends Pick<Message, 'id' | 'text' | 'fileIds' | 'page' | 'zone' | 'callBack' | 'device'> {
  consent?: string | null;
  /** In which language the door speaks to them. */
  language?: string;
  /** With what they were greeted before they wrote. */
  greeted?: string;
  /** The owner tries a draft. */
  isTrial?: boolean;
}

/** A tap on a card of what is asked often. */
export type VisitorTap = Omit<VisitorMessage, 'text' | 'fileIds' | 'callBack'> & { card: string };

/** Where an order is, for whoever has its number and the contact of whoever ordered. */
export type VisitorOrder = Omit<VisitorTap, 'card'> & { number: string; contact: string };

/** What a visitor may say of themselves; an own question is known by its id. */
export interface GivenDetails extends Omit<Details, 'own'> {
  own?: { id: string; value: string }[];
  /** Who is signed in on the website, as that has signed it. */
  signed?: string;
  signature?: string;
}

const bounded = (typed: string, field: string, limit: number): string => {
  const line = cleanLine(typed);
  if (line.length > limit) throw new Refused('text-too-long', { field, limit });
  return line;
};

const emailOf = (typed: string): string => {
  const line = bounded(typed, 'email', EMAIL_LONGEST);
  const email = line && toEmail(line);
  if (email === null) throw new Refused('email-not-understood', { field: 'email' });
  return email;
};

const isNews = (known: ThreadState, { name, email, phone, own }: Details): boolean =>
  Boolean(own) ||
  (name !== undefined && name !== known.name) ||
  (email !== undefined && email !== known.email) ||
  (phone !== undefined && phone !== known.phone);

/** What visitors of a website do: their consent, their guest book, their pages, their coming and going. */
export const createVisiting = (services: {
  store: Store;
  dressing: Dressing;
  receive: Receive;
  signs: Signs;
  clock: Clock;
  cards: Pick<AskedOften, 'told'>;
  greetings: Pick<Greetings, 'before'>;
  orders: Pick<OrdersOf, 'find'>;
  /** By which key a door's websites sign who is signed in there; null: by none, or it cannot be opened. */
  personKey: (doorId: string) => string | null;
}) => {
  const { store, dressing, receive, signs, clock, cards, greetings, orders, personKey } = services;

  const phoneOf = (typed: string): string => {
    const line = bounded(typed, 'phone', PHONE_LONGEST);
    const phone = line && toE164(line, store.business.read()?.country ?? '');
    if (phone === null) throw new Refused('phone-not-understood', { field: 'phone' });
    return phone;
  };

  /** Where and when somebody wants to be called; refuses where the door takes no such wishes. */
  const callBackOf = (doorId: string, { phone, at }: CallBack): CallBack => {
    if (!dressing.published(doorId).callBack)
      throw new Refused('choice-unknown', { field: 'callBack' });
    const number = phoneOf(phone);
    if (!number) throw new Refused('phone-not-understood', { field: 'phone' });
    // What waited to be sent may have been meant for a time that has passed meanwhile: they are called all the same.
    return { phone: number, at: at && Math.min(at, clock.now() + OWED_AHEAD_MS) };
  };

  /** Answers to questions that the door asks; the question is kept as it was asked. */
  const answersOf = (doorId: string, given: NonNullable<GivenDetails['own']>): OwnAnswer[] =>
    given.flatMap(({ id, value }) => {
      const asked = dressing.questionOf(doorId, id);
      if (!asked) return [];
      return { id, label: asked.label, value: bounded(value, id, DRESS_LIMITS.textLongest) };
    });

  /** Details in the form in which they are kept. An empty one takes back what was said. */
  const cleanDetails = (doorId: string, typed: GivenDetails): Details => ({
    ...(typed.name === undefined ? {} : { name: bounded(typed.name, 'name', NAME_LONGEST) }),
    ...(typed.email === undefined ? {} : { email: emailOf(typed.email) }),
    ...(typed.phone === undefined ? {} : { phone: phoneOf(typed.phone) }),
    ...(typed.own === undefined ? {} : { own: answersOf(doorId, typed.own) }),
  });

  /** What of them the website itself has proved; nothing where it has signed nothing, or nothing that is right. */
  const provedIn = (doorId: string, { signed, signature }: GivenDetails): Proved => {
    if (signed === undefined || signature === undefined) return {};
    const key = personKey(doorId);
    const country = store.business.read()?.country ?? '';
    const now = clock.now();
    return (key && provedPerson(key, { signed, signature }, { now, country })) || {};
  };

  /** What a door wants agreed to before anything is kept: refuses, or gives what is to be noted. */
  const consentFor = (
    doorId: string,
    known: ThreadState | null,
    language: string | null | undefined,
  ): Recording[] => {
    if (known?.hasConsented) return [];
    if (typeof language !== 'string') {
      if (dressing.isConsentAsked(doorId)) throw new Refused('consent-needed');
      return [];
    }
    const consent = dressing.consentOf(doorId, language);
    if (!consent) return [];
    return [{ id: newId(), happening: { kind: 'consented', ...consent } }];
  };

  /** As whom the house knows a visitor. A token is of one door: at another it is nobody's. */
  const writerOf = ({ doorId, tokenHash }: Visitor): Writer => {
    const writer = { doorId, address: tokenHash };
    if (!store.threads.byWriter(writer) && store.threads.isAtOtherDoor(writer)) {
      throw new Refused('token-unknown');
    }
    return writer;
  };

  /** What the door does not speak is no language of theirs here. */
  const spokenAt = (doorId: string, language: string | undefined): string | undefined =>
    language && languagesOf(dressing.published(doorId)).find((one) => one === language);

  const stateOf = (visitor: Visitor): ThreadState | null => receive.stateOf(writerOf(visitor));

  return {
    /** What is known of a visitor; null before they have said anything. */
    stateOf,
    writerOf,
    /** Refuses whoever has not agreed to be kept, where the door asks for that. */
    refuseWithoutConsent: (visitor: Visitor, consent: string | null): void => {
      consentFor(visitor.doorId, stateOf(visitor), consent);
    },
    /** The visitor's thread, made if need be: a file may come in before the first message. */
    threadFor: (visitor: Visitor, consent?: string | null): ThreadRecord => {
      consentFor(visitor.doorId, stateOf(visitor), consent);
      return receive.threadFor(writerOf(visitor));
    },
    /** Refuses details that could not be kept, without keeping them. */
    check: (visitor: Visitor, typed: GivenDetails): void => {
      cleanDetails(visitor.doorId, typed);
    },
    /** Takes a message; gives the conversation's id. The same message id twice is once. */
    message: (visitor: Visitor, typed: VisitorMessage, isHere: boolean): Promise<string> => {
      const { id, text, fileIds, page, zone } = typed;
      const before = (known: ThreadState | null) => [
        ...consentFor(visitor.doorId, known, typed.consent),
        ...greetings.before(visitor.doorId, known, typed),
      ];
      const after = (threadIds: readonly string[]) => signs.after(visitor.doorId, threadIds, typed);
      const language = spokenAt(visitor.doorId, typed.language);
      const callBack = typed.callBack && callBackOf(visitor.doorId, typed.callBack);
      const device = typed.device && hashSecret(typed.device);
      return receive.message(
        writerOf(visitor),
        { id, text, fileIds, page, zone, language, callBack, device },
        { isHere, before, after },
      );
    },
    /** Takes a tap: the question and its card's answer go onto the roll. The same id twice is once. */
    tap: (
      visitor: Visitor,
      { consent, card, greeted, isTrial, ...typed }: VisitorTap,
      isHere: boolean,
    ): Promise<string> => {
      const { doorId } = visitor;
      const writer = writerOf(visitor);
      const known = store.threads.byWriter(writer);
      const kept = known && store.entries.inThread(known.id, typed.id);
      if (known?.conversationId && kept?.kind === 'visitor-said' && kept.tapped?.card === card) {
        return Promise.resolve(known.conversationId);
      }
      const { question, answer, said, tapped, isPassed } = cards.told(doorId, card);
      const before = (state: ThreadState | null) => [
        ...consentFor(doorId, state, consent),
        ...greetings.before(doorId, state, { greeted, isTrial }),
      ];
      const after = (threadIds: readonly string[]): Recording[] => [
        { id: newId(), happening: { kind: 'door-sign', text: answer, until: null, card: said } },
        // To whom it is passed may not be in; an answer acknowledges it enough otherwise.
        ...(isPassed
          ? signs
              .after(doorId, threadIds, { language: typed.language, zone: typed.zone, isTrial })
              .filter(({ happening }) => happening.kind === 'door-sign' && !happening.isHello)
          : []),
      ];
      return receive.message(
        writer,
        {
          ...typed,
          text: question,
          fileIds: [],
          language: spokenAt(doorId, typed.language),
          device: typed.device && hashSecret(typed.device),
          tapped,
          setAside: isPassed ? undefined : 'card',
        },
        { isHere, before, after },
      );
    },
    /**
     * Where an order is, as the shop has it: what was asked and the answer go onto the roll, where the pair is right.
     * The same id twice is once.
     */
    order: async (
      visitor: Visitor,
      { consent, number, contact, greeted, isTrial, ...typed }: VisitorOrder,
      address: string,
    ): Promise<string> => {
      const { doorId } = visitor;
      const writer = writerOf(visitor);
      const known = store.threads.byWriter(writer);
      const kept = known && store.entries.inThread(known.id, typed.id);
      if (known?.conversationId && kept?.kind === 'visitor-said' && kept.setAside === 'card') {
        return known.conversationId;
      }
      consentFor(doorId, stateOf(visitor), consent);
      const clean = cleanLine(number).slice(0, ORDER_NUMBER_LONGEST);
      if (orderKey(clean) === '') throw new Refused('text-empty', { field: 'number' });
      const country = store.business.read()?.country ?? '';
      if (!isContact(contact, country))
        throw new Refused('contact-not-understood', { field: 'contact' });
      const asked = {
        number: clean,
        contact,
        visitor: visitor.tokenHash,
        address: addressKey(address),
      };
      const found = await orders.find(asked);
      const language = spokenAt(doorId, typed.language);
      const voice = voiceOf(dressing.worn(doorId, isTrial ?? false), [typed.language ?? '']);
      const text = orderInWords(found, voice.language, voice.say);
      const said = { kind: 'door-sign' as const, text, until: null, order: found.number };
      const before = (state: ThreadState | null) => [
        ...consentFor(doorId, state, consent),
        ...greetings.before(doorId, state, { greeted, isTrial }),
      ];
      return receive.message(
        writer,
        {
          ...typed,
          text: voice.say('orderAsked', { number: found.number }),
          fileIds: [],
          language,
          device: typed.device && hashSecret(typed.device),
          setAside: 'card',
        },
        { isHere: true, before, after: () => [{ id: newId(), happening: said }] },
      );
    },
    /** A card has answered what they left: nobody has to, where nothing else of theirs waits. */
    enough: (visitor: Visitor, id: string): Promise<boolean> =>
      receive.enough(writerOf(visitor), id),
    /** Who the visitor is and how they can be reached. False when nothing was ever said. */
    details: async (visitor: Visitor, id: string, typed: GivenDetails): Promise<boolean> => {
      const { id: account, ...proved } = provedIn(visitor.doorId, typed);
      const details = { ...cleanDetails(visitor.doorId, typed), ...proved };
      const writer = writerOf(visitor);
      const isTaken = await receive.within(
        writer,
        // A website signs on every page: what is known already is not said once more.
        (known) =>
          typed.signed === undefined || isNews(known, details)
            ? { id, happening: { kind: 'details', ...details } }
            : null,
        (before) => isSameDetails(before, details),
      );
      const { email, phone } = proved;
      const ways = Object.entries({ email, phone, [`account ${visitor.doorId}`]: account });
      await receive.prove(
        writer,
        ways.flatMap(([kind, address]) => (address ? [{ kind, address }] : [])),
      );
      return isTaken;
    },
    page: (visitor: Visitor, id: string, typed: Page): Promise<boolean> => {
      const page = cleanPage(typed);
      return receive.within(
        writerOf(visitor),
        (known) =>
          page && page.url !== known.page?.url
            ? { id, happening: { kind: 'waypoint', page } }
            : null,
        (before) => before.kind === 'waypoint',
      );
    },
    /** The panel has everything up to a seq, or its visitor has read it. */
    progress: async (
      visitor: Visitor,
      kind: 'visitor-has' | 'visitor-read',
      seq: number,
    ): Promise<void> => {
      const stepOf = (known: ThreadState): Recording | null => {
        // Not further than to what was said: an entry that says how far would be one to say more of.
        const upTo = Math.min(seq, known.saidSeq);
        const was = kind === 'visitor-has' ? known.visitorHasSeq : known.visitorReadSeq;
        return upTo > was ? { id: newId(), happening: { kind, upTo } } : null;
      };
      const known = stateOf(visitor);
      // Most of what a panel says here is known already: that is no reason for a transaction.
      if (known && stepOf(known)) await receive.within(writerOf(visitor), stepOf);
    },
    /** The visitor came to a page with the panel, or left the last one. */
    presence: (visitor: Visitor, isHere: boolean): Promise<boolean> =>
      receive.within(writerOf(visitor), (known) =>
        known.isHere === isHere
          ? null
          : { id: newId(), happening: { kind: isHere ? 'here' : 'gone' } },
      ),
  };
};

export type Visiting = ReturnType<typeof createVisiting>;
