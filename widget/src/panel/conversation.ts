import type { ToVisitor, VisitorPage } from '@porch/contract/visitor';
import { nextLookAt, type QueueAction, ready } from '@porch/core/send-queue';
import { nanoid } from 'nanoid';
import type { FromFrame, ToFrame } from '../bridge';
import { connect } from './connection';
import { createDelivery } from './deliver';
import { createToken, type Door, keep, kept } from './door';
import { type Event, firstModel, type Model, next, unreadCount } from './model';
import { createShelf, type HeldFile, type Load, type PanelParcel } from './parcels';

const TYPING_TOLD_EVERY_MS = 3_000;
const LANE = 'conversation';

/** The visitor's side of the conversation: model, connection and queue, without any drawing. */
export const openConversation = ({ door, place }: Door) => {
  let model: Model = firstModel;
  const watchers = new Set<(model: Model) => void>();
  const shelf = createShelf(door);
  const { token, store: storeToken } = createToken(door);
  const isFramed = place === 'frame' && parent !== window;
  let site = '';
  let page: { url: string; title: string } | null = null;
  let isShown = !isFramed;
  let readSeq = Number(kept(`porch:read:${door}`) ?? 0);
  let hasSeq = 0;
  let typingToldAt = 0;
  let timer = 0;

  const tellPage = (message: FromFrame): void => {
    if (isFramed && site) parent.postMessage(message, site);
  };

  const change = (event: Event): void => {
    model = next(model, event);
    for (const watcher of watchers) watcher(model);
  };

  const changeQueue = (action: QueueAction<Load>): void => {
    change({ type: 'queue', action });
    if (action.do === 'add') keepParcel(action.parcel.id);
    else if ('id' in action) keepParcel(action.id);
  };

  /** Keeps on this device what the queue now holds of a parcel, or no longer holds. */
  const keepParcel = (id: string): void => {
    const parcel = model.queue.find((one) => one.id === id);
    if (!parcel) void shelf.remove(id);
    else void shelf.put(parcel);
  };

  const hear = (message: ToVisitor): void => {
    if (message.say === 'taken') {
      delivery.settle(message.id, 'arrived');
      return;
    }
    if (message.say === 'refused') {
      delivery.settle(message.id, message.refusal);
      return;
    }
    const before = model.queue;
    change({ type: 'heard', message, now: Date.now() });
    for (const { id } of before) {
      if (!model.queue.some((parcel) => parcel.id === id)) keepParcel(id);
    }
    if (message.say === 'welcome') {
      changeQueue({ do: 'line-back' });
      tellWaypoint();
      pump();
    }
    if (message.say === 'welcome' || message.say === 'lamp') {
      tellPage({ porch: 'lamp', lamp: message.lamp, now: message.now });
    }
    if (message.say === 'welcome' || message.say === 'entries') noteReading();
  };

  const connection = (() => {
    const { protocol, host } = location;
    return () =>
      connect({
        url: `${protocol === 'https:' ? 'wss' : 'ws'}://${host}/door/${door}/live`,
        hello: () => ({ do: 'hello', token, since: model.seq, site }),
        hear,
        changed: (isConnected) => {
          if (!isConnected) delivery.giveUp();
          change({ type: 'connected', isConnected });
        },
      });
  })();
  let line: ReturnType<typeof connection> | null = null;

  const send: Parameters<typeof createDelivery>[0]['send'] = (message) =>
    line?.send(message) ?? false;
  const delivery = createDelivery({
    door,
    token,
    send,
    get site() {
      return site;
    },
  });

  const deliver = async (parcel: PanelParcel): Promise<void> => {
    changeQueue({ do: 'sending', id: parcel.id });
    const outcome = await delivery.deliver(parcel);
    if (outcome === 'arrived') {
      changeQueue({ do: 'arrived', id: parcel.id });
      if (parcel.load.do === 'say') tellPage({ porch: 'talked' });
    } else if (outcome === 'not-now') {
      changeQueue({ do: 'not-now', id: parcel.id, now: Date.now() });
    } else {
      change({ type: 'refused', id: parcel.id, refusal: outcome });
      keepParcel(parcel.id);
    }
    pump();
  };

  const pump = (): void => {
    clearTimeout(timer);
    if (!model.isConnected) return;
    for (const parcel of ready(model.queue, Date.now())) void deliver(parcel);
    const lookAt = nextLookAt(model.queue, Date.now());
    if (lookAt !== null) timer = window.setTimeout(pump, lookAt - Date.now());
  };

  const add = (load: Load): void => {
    storeToken();
    changeQueue({ do: 'add', parcel: { id: nanoid(), lane: LANE, load, madeAt: Date.now() } });
    pump();
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
    if (line) return;
    line = connection();
    void shelf.all().then((parcels) => {
      for (const { id, lane, load, madeAt } of parcels) {
        change({ type: 'queue', action: { do: 'add', parcel: { id, lane, load, madeAt } } });
      }
      pump();
    });
  };

  addEventListener('message', (event) => {
    if (event.source !== parent || !isFramed) return;
    const message = event.data as ToFrame;
    if (message?.porch === 'page') {
      site = event.origin;
      page = { url: message.url.slice(0, 2_000), title: message.title.slice(0, 200) };
      if (line) tellWaypoint();
      else start();
    }
    if (message?.porch === 'shown' || message?.porch === 'hidden') {
      isShown = message.porch === 'shown';
      if (isShown) dispatchEvent(new Event('porch:shown'));
      noteReading();
    }
  });
  document.addEventListener('visibilitychange', noteReading);
  if (isFramed) parent.postMessage({ porch: 'ready' } satisfies FromFrame, '*');
  else start();

  return {
    now: (): Model => model,
    watch: (watcher: (model: Model) => void): (() => void) => {
      watchers.add(watcher);
      return () => watchers.delete(watcher);
    },
    isFramed,
    say: (text: string, files: HeldFile[]): void => add({ do: 'say', text, files, page }),
    giveDetails: (details: Partial<Model['details']>): void => add({ do: 'details', ...details }),
    retry: (id: string): void => {
      changeQueue({ do: 'retry', id });
      pump();
    },
    drop: (id: string): void => changeQueue({ do: 'drop', id }),
    typing: (): void => {
      if (Date.now() - typingToldAt < TYPING_TOLD_EVERY_MS) return;
      typingToldAt = Date.now();
      send({ do: 'typing' });
    },
    showOlder: async (): Promise<void> => {
      const before = model.entries[0]?.seq ?? 0;
      const response = await fetch(`/door/${door}/entries?before=${before}`, {
        headers: { authorization: `Bearer ${token}`, 'x-site': site },
      }).catch(() => null);
      if (response?.ok) change({ type: 'older', page: (await response.json()) as VisitorPage });
    },
    /** A file's bytes as an address that only this page can open. Null when they cannot be had. */
    fetchFile: async (id: string, size: 'whole' | 'thumbnail'): Promise<string | null> => {
      const response = await fetch(`/door/${door}/files/${id}?size=${size}`, {
        headers: { authorization: `Bearer ${token}`, 'x-site': site },
      }).catch(() => null);
      return response?.ok ? URL.createObjectURL(await response.blob()) : null;
    },
    close: (): void => tellPage({ porch: 'close' }),
  };
};

export type Conversation = ReturnType<typeof openConversation>;
