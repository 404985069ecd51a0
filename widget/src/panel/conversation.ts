import type { HeldFile } from '@porch/client/files';
import { keep, kept, mayKeep } from '@porch/client/keeping';
import { createSendLoop, type Outcome } from '@porch/client/send-loop';
import { createShelf, emptyShelf, type Shelf } from '@porch/client/shelf';
import type { Refusal } from '@porch/contract/errors';
import { SIGNED_LONGEST } from '@porch/contract/limits';
import type { OtherWays, PanelPageData, ToVisitor, VisitorPage } from '@porch/contract/visitor';
import type { CallBack } from '@porch/core/conversation';
import type { DoorView } from '@porch/core/dress';
import { nanoid } from 'nanoid';
import type { FromFrame, ToFrame } from '../bridge';
import { type Connection, connect } from './connection';
import { createDelivery } from './deliver';
import { createToken, deviceMark } from './door';
import { type Event, firstModel, type Model, next, shownDetails, unreadCount } from './model';
import type { Given, Load, PanelParcel } from './parcels';
import { pretend } from './pretend';

const TYPING_TOLD_EVERY_MS = 3_000;
const LANE = 'conversation';
const FINDING_LONGEST_MS = 8_000;

/** A card that was found. */
export interface FoundCard {
  id: string;
  question: string;
}

/** The visitor's side of the conversation: model, connection and queue, without any drawing. */
export const openConversation = ({ door, place, view, isClosed }: PanelPageData) => {
  let model: Model = firstModel;
  const watchers = new Set<(model: Model) => void>();
  const token = createToken(door);
  const isFramed = place !== 'page' && parent !== window;
  const isPretended = place === 'preview';
  const shelf: Shelf<Load> = isPretended ? emptyShelf : createShelf(`porch-${door}`);
  const agreedKey = `porch:agreed:${door}`;
  const heldKey = `porch:held:${door}`;
  let dressed: DoorView | null = place === 'frame' || place === 'page' ? view : null;
  let agreedIn = kept(agreedKey);
  let introduced: Given | null = null;
  let site = '';
  let page: { url: string; title: string } | null = null;
  let isShown = !isFramed;
  let isGlancing = false;
  let wantsFocus = false;
  let readSeq = Number(kept(`porch:read:${door}`) ?? 0);
  let hasSeq = 0;
  let typingToldAt = 0;
  const finding = new Map<string, (cards: FoundCard[]) => void>();

  const tellPage = (message: FromFrame): void => {
    if (isFramed && site) parent.postMessage(message, site);
  };

  const change = (event: Event): void => {
    model = next(model, event);
    for (const watcher of watchers) watcher(model);
  };

  const hear = (message: ToVisitor): void => {
    if (message.say === 'taken') {
      delivery.settle(message.id, 'arrived');
      return;
    }
    if (message.say === 'found') {
      finding.get(message.id)?.(message.cards);
      return;
    }
    if (message.say === 'refused') {
      const isHeldUp = message.refusal.code === 'cannot-write';
      delivery.settle(message.id, isHeldUp ? 'held-up' : message.refusal);
      return;
    }
    const before = model.queue;
    change({ type: 'heard', message, now: Date.now() });
    const isLeft = (id: string): boolean => model.queue.some((parcel) => parcel.id === id);
    sending.settled(before.map(({ id }) => id).filter((id) => !isLeft(id)));
    if (message.say === 'welcome') {
      if (message.hasConsented) mayKeep(true);
      // Said anew: what was on its way when a connection broke is heard of by nobody.
      if (readSeq > 0) send({ do: 'read', upTo: readSeq });
      introduce();
      tellWaypoint();
      sending.connected();
    }
    if (message.say === 'welcome' || message.say === 'lamp') {
      tellPage({ porch: 'lamp', lamp: message.lamp, now: message.now });
    }
    if (message.say === 'welcome' || message.say === 'entries') noteReading();
  };

  const connection = (): Connection =>
    isPretended
      ? pretend(
          hear,
          (isConnected) => change({ type: 'connected', isConnected }),
          () => model.lamp,
          () => (dressed?.hello ? dressed.texts.hello : ''),
          () => dressed?.asked.all ?? null,
        )
      : connect({
          door,
          hello: () => ({
            do: 'hello',
            token: token.now(),
            since: model.seq,
            last: model.last,
            site,
          }),
          hear,
          changed: (isConnected) => {
            if (!isConnected) delivery.giveUp();
            change({ type: 'connected', isConnected });
          },
        });
  let connected: Connection | null = null;

  const send: Parameters<typeof createDelivery>[0]['send'] = (message) =>
    connected?.send(message) ?? false;
  const delivery = createDelivery({
    door,
    isTrial: place === 'trial' || undefined,
    get token() {
      return token.now();
    },
    send,
    get site() {
      return site;
    },
    get language() {
      return dressed?.language;
    },
    get device() {
      return deviceMark();
    },
    get consent() {
      return dressed?.consent ? agreedIn : null;
    },
  });

  const deliver = async (parcel: PanelParcel): Promise<Outcome> => {
    const answer = await delivery.deliver(parcel);
    change({ type: 'held-up', isHeldUp: answer === 'held-up' });
    if (answer === 'arrived' && parcel.load.do !== 'details') tellPage({ porch: 'talked' });
    return answer === 'held-up' ? 'not-now' : answer;
  };

  const sending = createSendLoop<Load>({
    queue: () => model.queue,
    change: (action) => change({ type: 'queue', action }),
    deliver,
    refused: ({ id }, refusal) => change({ type: 'refused', id, refusal }),
    mayLeave: () => model.isConnected,
    shelf,
    now: () => Date.now(),
  });

  const hasTalked = (): boolean =>
    model.entries.length > 0 || model.queue.some(({ load }) => load.do !== 'details');

  /** Somebody has begun to talk in another tab: as long as nothing was said in this one, it goes on there. */
  const joinOtherTab = (): void => {
    if (isPretended || hasTalked() || !token.adopt()) return;
    change({ type: 'anew' });
    connected?.anew();
  };

  const add = (...loads: Load[]): void => {
    joinOtherTab();
    token.store();
    for (const load of loads) sending.add(LANE, load);
  };

  const hold = (held: Given | null): void => {
    change({ type: 'held', held });
    keep(heldKey, held ? JSON.stringify(held) : '');
  };

  /** The order that is asked for, under which id; empty: none is. */
  let orderAsked = { of: '', id: '' };

  /** What they were greeted with goes with what they say, until it is on the roll. */
  const greeted = (): { greeted?: string } =>
    model.greeting ? { greeted: model.greeting.id } : {};

  /** What somebody says of themselves waits until there is a conversation to note it in. */
  const give = (given: Given): void => {
    if (hasTalked()) add({ do: 'details', ...given });
    else hold({ ...model.held, ...given });
  };

  /** Who the website says is here, unless they said otherwise themselves. */
  const introduce = (): void => {
    if (!introduced || !model.isWelcome) return;
    const known = shownDetails(model);
    const given = {
      ...(!known.name && introduced.name ? { name: introduced.name.slice(0, 80) } : {}),
      ...(!known.email && introduced.email ? { email: introduced.email.slice(0, 254) } : {}),
      // What is proved counts, whatever was said before.
      ...(introduced.signed && introduced.signed.length <= SIGNED_LONGEST
        ? { signed: introduced.signed, signature: introduced.signature?.slice(0, 200) }
        : {}),
    };
    introduced = null;
    if (Object.keys(given).length > 0) give(given);
  };

  const putOn = (next: DoorView): void => {
    dressed = next;
    mayKeep(!isPretended && (!next.consent || agreedIn !== null || model.hasAgreed));
    for (const watcher of watchers) watcher(model);
  };

  const noteReading = (): void => {
    const last = model.entries.findLast((entry) => entry.by === 'team')?.seq ?? 0;
    const isSeen = isShown && document.visibilityState === 'visible';
    if (isSeen && last > readSeq && send({ do: 'read', upTo: last })) {
      readSeq = last;
      hasSeq = last;
      keep(`porch:read:${door}`, String(last));
    } else if (last > hasSeq && last > readSeq && send({ do: 'has', upTo: last })) hasSeq = last;
    tellPage({ porch: 'unread', count: unreadCount(model.entries, readSeq) });
  };

  const tellWaypoint = (): void => {
    if (page && model.entries.length > 0) send({ do: 'page', id: nanoid(), page });
  };

  const start = (): void => {
    if (connected || isClosed) return;
    connected = connection();
    const held = kept(heldKey);
    if (held) change({ type: 'held', held: JSON.parse(held) as Given });
    if (isPretended) return;
    void sending.start();
  };

  const sayReady = (): void => parent.postMessage({ porch: 'ready' } satisfies FromFrame, '*');

  addEventListener('message', (event) => {
    if (event.source !== parent || !isFramed) return;
    const message = event.data as ToFrame;
    if (message?.porch === 'ready') sayReady();
    if (message?.porch === 'page') {
      site = event.origin;
      page = { url: message.url.slice(0, 2_000), title: message.title.slice(0, 200) };
      if (connected) tellWaypoint();
      else start();
    }
    if (message?.porch === 'view' && place !== 'frame') putOn(message.view);
    if (message?.porch === 'person') {
      const [name, email, signed, signature] = message.person;
      introduced = { name, email, ...(signed ? { signed, signature } : {}) };
      introduce();
    }
    if (message?.porch === 'greeting') change({ type: 'greeted', greeting: message.greeting });
    if (message?.porch === 'lamp' && isPretended)
      hear({ say: 'lamp', usual: null, opens: [], ...message });
    if (message?.porch === 'shown' || message?.porch === 'hidden' || message?.porch === 'glance') {
      isShown = message.porch === 'shown';
      isGlancing = message.porch === 'glance';
      for (const watcher of watchers) watcher(model);
      wantsFocus = message.porch === 'shown' && message.takesFocus;
      if (wantsFocus) dispatchEvent(new Event('porch:shown'));
      noteReading();
    }
  });
  document.addEventListener('visibilitychange', noteReading);
  addEventListener('storage', joinOtherTab);
  if (dressed) putOn(dressed);
  if (agreedIn !== null) change({ type: 'agreed' });
  if (isFramed) sayReady();
  else start();

  return {
    now: (): Model => model,
    watch: (watcher: (model: Model) => void): (() => void) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    isFramed,
    isClosed,
    /** Whether the frame is small beside the plate, with room for a few words only. */
    isGlancing: (): boolean => isGlancing,
    open: (): void => tellPage({ porch: 'open' }),
    /** Whether somebody has just opened the panel to write; true once. */
    takeFocus: (): boolean => {
      const wanted = wantsFocus;
      wantsFocus = false;
      return wanted;
    },
    view: (): DoorView | null => dressed,
    say: (text: string, files: HeldFile[], callBack?: CallBack): void => {
      const { held } = model;
      add(
        { do: 'say', text, files, page, callBack, ...greeted() },
        ...(held ? [{ do: 'details' as const, ...held }] : []),
      );
      if (held) hold(null);
    },
    /** A card of what is asked often was tapped. */
    tap: ({ id, question }: FoundCard): void =>
      add({ do: 'tap', card: id, question, page, ...greeted() }),
    /** Where an order is; null where it was found and stands on the roll now. */
    order: async (number: string, contact: string): Promise<Refusal | null> => {
      joinOtherTab();
      const of = `${number}\n${contact}`;
      // Asked anew because no answer came through, it is the same question.
      if (orderAsked.of !== of) orderAsked = { of, id: nanoid() };
      const refusal = await delivery.order(orderAsked.id, { number, contact, page, ...greeted() });
      if (refusal) return refusal;
      orderAsked = { of: '', id: '' };
      token.store();
      tellPage({ porch: 'talked' });
      return null;
    },
    /** Cards that answer something; null when that cannot be told now. */
    find: (text: string, why: 'search' | 'note'): Promise<FoundCard[] | null> => {
      const id = nanoid();
      return new Promise((resolve) => {
        const settle = (cards: FoundCard[] | null): void => {
          clearTimeout(timer);
          finding.delete(id);
          resolve(cards);
        };
        const timer = setTimeout(settle, FINDING_LONGEST_MS, null);
        finding.set(id, settle);
        const language = dressed?.language ?? '';
        if (!send({ do: 'find', id, text, language, for: why })) settle(null);
      });
    },
    /** What was left has been answered by a card; whether that was heard. */
    enough: (): Promise<boolean> => delivery.enough(nanoid()),
    /** Notes who the visitor is; gives what is wrong with it, or null when it is taken. */
    giveDetails: async (given: Given): Promise<Refusal | null> => {
      const refusal = model.isConnected ? await delivery.check(nanoid(), given) : null;
      if (!refusal) give(given);
      return refusal;
    },
    /** The visitor agrees that what they write is kept. */
    agree: (): void => {
      agreedIn = dressed?.language ?? '';
      mayKeep(!isPretended);
      keep(agreedKey, agreedIn);
      change({ type: 'agreed' });
    },
    retry: sending.retry,
    drop: sending.drop,
    typing: (): void => {
      if (Date.now() - typingToldAt < TYPING_TOLD_EVERY_MS) return;
      typingToldAt = Date.now();
      send({ do: 'typing' });
    },
    showOlder: async (): Promise<void> => {
      const before = model.entries[0]?.seq ?? 0;
      const response = await fetch(`/door/${door}/entries?before=${before}`, {
        headers: { authorization: `Bearer ${token.now()}`, 'x-site': site },
      }).catch(() => null);
      if (response?.ok) change({ type: 'older', page: (await response.json()) as VisitorPage });
    },
    /** A file's bytes as an address that only this page can open. Null when they cannot be had. */
    fetchFile: async (id: string, size: 'whole' | 'thumbnail'): Promise<string | null> => {
      // In the dressing room whoever is signed in looks at their own pictures.
      const path = isPretended ? '/api' : `/door/${door}`;
      const response = await fetch(`${path}/files/${id}?size=${size}`, {
        headers: { authorization: `Bearer ${token.now()}`, 'x-site': site },
      }).catch(() => null);
      return response?.ok ? URL.createObjectURL(await response.blob()) : null;
    },
    /** Other doors to write by; null when they cannot be had. */
    otherWays: async (): Promise<OtherWays | null> => {
      if (isPretended) return { code: null, ways: [] };
      const response = await fetch(`/door/${door}/ways`, {
        method: 'POST',
        headers: {
          authorization: `Bearer ${token.now()}`,
          'x-site': site,
          'content-type': 'application/json',
        },
        body: JSON.stringify({ language: dressed?.language ?? '' }),
      }).catch(() => null);
      return response?.ok ? ((await response.json()) as OtherWays) : null;
    },
    close: (): void => tellPage({ porch: 'close' }),
  };
};

export type Conversation = ReturnType<typeof openConversation>;
