import { createHmac } from 'node:crypto';
import type { DoorCan, Outbound } from '@porch/contract/doors';
import { FILE_LARGEST_BYTES, FILES_MOST } from '@porch/contract/entries';
import { MESSAGE_LONGEST } from '@porch/core/text';
import { type Element, xml } from '@xmpp/client';
import { JobFailed } from '../../jobs/worker';
import { Refused } from '../../refused';
import type { DoorRecord } from '../../store';
import { connectingBy, type NetworkParts, secretsOf, toldOf } from '../network-parts';
import type { DoorKind, WireBy } from '../registry';
import { personOf } from './addresses';
import { createArchive, hasArchive, markAt } from './archive';
import { isServer, openSession, type Session } from './session';
import {
  type Came,
  cameLive,
  heardIn,
  messageTo,
  presenceFor,
  receiptAsked,
  receiptTo,
  typingTo,
} from './stanzas';
import { findUploads, putFile, type Uploads, UploadsSchema } from './uploads';

export const XMPP = 'xmpp';

/** So much may wait to be taken before the server is let wait. */
const WAITING_MOST = 100;
/** While old messages are read nothing can be let wait; more than this begins anew. */
const WAITING_LIMIT = 5_000;
/** After so many messages that came by themselves it is made sure that none is missing. */
const READ_AFTER = 20;
/** So often it is asked whether the server is still there. */
const PULSE_MS = 60_000;
/** So many people are let see whether somebody is in, by one connection: who asks without end gets nothing. */
const WATCHERS_MOST = 500;

const uploadsOf = ({ settings }: DoorRecord): Uploads | null =>
  UploadsSchema.nullable()
    .catch(null)
    .parse(settings.uploads ?? null);

const can = (door: DoorRecord): DoorCan => {
  const uploads = uploadsOf(door);
  return {
    textLongest: MESSAGE_LONGEST,
    filesMost: uploads ? FILES_MOST : 0,
    fileLargestBytes: uploads ? Math.min(uploads.largestBytes, FILE_LARGEST_BYTES) : 0,
    receipts: 'read',
    typing: true,
    windowMs: null,
  };
};

/** The same for the same message, and of a form that nobody guesses who would say that another one has arrived. */
const idFor = (secret: string, key: string): string =>
  createHmac('sha256', secret).update(key).digest('base64url');

/**
 * An open messenger network: any server that speaks XMPP (RFC 6120, 6121), with receipts (XEP-0184), typing
 * (XEP-0085) and files (XEP-0363); what came while nobody was connected is read from the server's archive (XEP-0313).
 */
export const xmppDoor = ({
  outside,
  asking,
  clock,
  lightAt,
  fileBytes,
}: NetworkParts): DoorKind => {
  const sessions = new Map<string, Session>();

  const signInOf = (door: DoorRecord, secret: string | null, use: string) => {
    const { address = '', server = '' } = toldOf(door);
    const { password = '' } = secretsOf(secret);
    return { address, server, password, resource: `porch-${use}-${door.publicId}` };
  };

  const sessionOf = (door: DoorRecord): Session => {
    const session = sessions.get(door.id);
    if (!session) throw new JobFailed('network-unreachable');
    return session;
  };

  const presenceAt = (door: DoorRecord): Element => presenceFor(lightAt(door.id).state === 'lit');

  /** Says what is to be said, one message after the other; gives the id of the last. */
  const say = async (
    { session, id, signal }: { session: Session; id: string; signal: AbortSignal },
    { to, text, files }: Outbound,
    uploads: Uploads | null,
  ): Promise<string> => {
    const stanzas = text ? [messageTo(to, id, text)] : [];
    for (const [at, file] of files.entries()) {
      if (!uploads) throw new JobFailed('file-too-large', true);
      const by = { session, asking, signal };
      const link = await putFile(by, uploads, { ...file, bytes: fileBytes(file.id) });
      stanzas.push(messageTo(to, `${id}.${at}`, link, link));
    }
    for (const stanza of stanzas) await session.say(stanza);
    await session.taken();
    return stanzas.at(-1)?.attrs.id ?? id;
  };

  /** Finds out that a server is gone that did not say so. */
  const watch = async (session: Session): Promise<void> => {
    for (;;) {
      await clock.wait(PULSE_MS);
      if (session.isOver()) return;
      await session.taken().catch((error) => session.break(error));
    }
  };

  const wire = async ({ door, secret, mark, signal, heard, stands }: WireBy): Promise<void> => {
    const signIn = signInOf(door, secret, 'door');
    const own = signIn.address;
    let watchers = 0;
    let waiting = 0;
    // What is asked for cannot come while the server is let wait.
    let isReading = true;
    // Of another account that the door had before nothing is known here.
    const account = `${own} `;
    let upTo = mark.startsWith(account) ? mark.slice(account.length) : '';
    let sinceRead = 0;
    const archives: ReturnType<typeof createArchive>[] = [];
    // What comes by itself waits behind what came before.
    let goOn = (): void => {};
    let tail = new Promise<void>((resolve) => {
      goOn = resolve;
    });

    const takeOne = async (came: Came): Promise<void> => {
      await heard(heardIn(came, own, clock.now()), null);
      const asked = receiptAsked(came.stanza);
      const from = personOf(came.stanza.attrs.from ?? '');
      // They are told that it has arrived once it is on disk, and not before.
      if (!asked || !from || from === own) return;
      // Whoever hears nothing of it now hears it when it is read from the archive, or not at all: it is here all the same.
      await session.say(receiptTo(from, asked)).catch(() => undefined);
    };

    /** Reads what the server has kept and we have not seen to be here: by that the mark goes on, and by nothing else. */
    const readKept = async (): Promise<void> => {
      sinceRead = 0;
      isReading = true;
      for (const archive of archives) {
        upTo = await archive.read(upTo, async (came, next) => {
          for (const one of came) await takeOne(one);
          await heard({}, account + next);
        });
      }
      isReading = false;
    };

    const takeLive = async (stanza: Element): Promise<void> => {
      await takeOne(cameLive(stanza, own));
      sinceRead += 1;
      if (sinceRead >= READ_AFTER) await readKept();
    };

    const letWatch = async (stanza: Element): Promise<void> => {
      const from = personOf(stanza.attrs.from ?? '');
      if (!from || watchers >= WATCHERS_MOST) return;
      watchers += 1;
      await session.say(xml('presence', { to: from, type: 'subscribed' }));
    };

    const later = (work: () => Promise<void>): void => {
      waiting += 1;
      if (!isReading && waiting >= WAITING_MOST) session.pause();
      if (waiting > WAITING_LIMIT) session.break(new JobFailed('network-too-many'));
      tail = tail.then(work).then(
        () => {
          waiting -= 1;
          if (waiting === WAITING_MOST >> 1) session.resume();
        },
        (error) => session.break(error),
      );
    };

    const onStanza = (stanza: Element): void => {
      if (archives.some((archive) => archive.hear(stanza))) return;
      if (stanza.name === 'message') later(() => takeLive(stanza));
      if (stanza.name === 'presence' && stanza.attrs.type === 'subscribe') {
        later(() => letWatch(stanza));
      }
    };

    const session = await openSession(outside, signIn, onStanza);
    const end = (): void => session.stop();
    signal.addEventListener('abort', end);
    try {
      if (await hasArchive(session, own)) {
        archives.push(createArchive(session, own, clock.now));
        if (upTo) {
          await readKept();
        } else {
          upTo = markAt(clock.now());
          await heard({}, account + upTo);
        }
      }
      await session.say(presenceAt(door));
      isReading = false;
      goOn();
      sessions.set(door.id, session);
      await stands();
      void watch(session);
      const why = await session.ended;
      if (!signal.aborted) throw why;
    } catch (error) {
      if (signal.aborted) return;
      // A server that answers with an error where it should have answered does not work.
      throw (error as Error).name === 'StanzaError' ? new JobFailed('network-broken') : error;
    } finally {
      signal.removeEventListener('abort', end);
      if (sessions.get(door.id) === session) sessions.delete(door.id);
      session.stop();
    }
  };

  const connecting = connectingBy({
    outside,
    fields: [
      { id: 'address', form: 'line' },
      { id: 'password', form: 'secret' },
      { id: 'server', form: 'line', isOptional: true },
    ],
    made: [],
    check: async (door, secret, signal) => {
      const session = await openSession(outside, signInOf(door, secret, 'trial'), () => undefined);
      const end = (): void => session.stop();
      signal.addEventListener('abort', end);
      try {
        return { uploads: await findUploads(session) };
      } finally {
        signal.removeEventListener('abort', end);
        session.stop();
      }
    },
  });

  return {
    kind: XMPP,
    plate: 'hub',
    way: XMPP,
    can,
    wire,
    lightChanged: (door) => {
      sessions
        .get(door.id)
        ?.say(presenceAt(door))
        .catch(() => undefined);
    },
    tellTyping: (door, to) => {
      sessions
        .get(door.id)
        ?.say(typingTo(to))
        .catch(() => undefined);
    },
    send: async ({ door, secret, outbound, signal }) => {
      const session = sessionOf(door);
      const id = idFor(`${secretsOf(secret).password}${door.id}`, outbound.key);
      const networkId = await say({ session, id, signal }, outbound, uploadsOf(door));
      return { networkId, step: 'sent' };
    },
    fetchFile: ({ address, signal }) => asking.file({ address, headers: {}, signal }, address),
    writeTo: (door, text) =>
      // RFC 5122, with the query of XEP-0147.
      `xmpp:${toldOf(door).address}?message;body=${encodeURIComponent(text)}`,
    connecting: {
      ...connecting,
      settle: (given, known) => {
        const kept = connecting.settle(given, known);
        const { address = '', server = '' } = toldOf(kept);
        const person = personOf(address);
        if (!person) throw new Refused('email-not-understood', { field: 'address' });
        if (server && !isServer(server)) {
          throw new Refused('server-not-understood', { field: 'server' });
        }
        return {
          ...kept,
          settings: { ...kept.settings, told: { ...toldOf(kept), address: person } },
        };
      },
      shows: () => ({}),
    },
  };
};
