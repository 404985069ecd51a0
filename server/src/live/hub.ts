import { randomUUID } from 'node:crypto';
import type { Counts, Row } from '@porch/contract/entries';
import type { TeamLamp } from '@porch/contract/lamp';
import type { ToTeam } from '@porch/contract/live';
import type { Reached, Stretch, ToVisitor, VisitorEntry } from '@porch/contract/visitor';
import { type Entry, isForVisitor, type ThreadState } from '@porch/core/conversation';
import type { Light } from '@porch/core/lamp';

/** A team member's device that is connected now. */
export interface Device {
  memberId: string;
  /** Hash of the cookie's secret, so that signing out closes the socket as well. */
  sessionHash: string;
  /** True once it has said hello: only then is it told anything. */
  isListening: boolean;
  /** Which conversation is open on it and in sight; null: none. */
  sees: string | null;
  /** Whether the app is in sight on it. */
  isInSight: boolean;
  send(text: string): void;
  close(): void;
}

/** A visitor's panel that is connected now. */
export interface Panel {
  /** Who writes there; see `writerKey`. */
  writer: string;
  doorId: string;
  send(message: ToVisitor): void;
}

/** A plate on a website that shows the lamp without anybody having opened it. */
export interface Plate {
  doorId: string;
  send(lamp: Light, now: number): void;
  close(): void;
}

/** What a transaction has put on disk, for those who should hear of it. */
export interface News {
  entries: Entry[];
  row: Row;
  /** Whom of the conversation's writers it concerns, and what of it. */
  told: { writer: string; state: ThreadState; entries: Entry[] }[];
}

/** How somebody of the team is called and looks at a door. */
export type PersonAt = (memberId: string, doorId: string) => { name: string; face: string | null };

/** What a visitor may know of an entry; null for what is not theirs to know. */
export const toVisitorEntry = (
  entry: Entry,
  doorId: string,
  personAt: PersonAt,
): VisitorEntry | null => {
  if (!isForVisitor(entry.kind)) return null;
  if (entry.kind === 'door-sign') {
    const { seq, id, at, text, card, greeting, order } = entry;
    const said = { seq, id, at, text, by: 'door' as const, name: '', face: null };
    if (greeting) {
      const { name = '', face = null } = greeting.memberId
        ? personAt(greeting.memberId, doorId)
        : {};
      return { ...said, name, face, files: [], greeting: greeting.id };
    }
    if (order) return { ...said, files: [], isOrder: true };
    if (!card) return { ...said, files: [] };
    const { files, ...more } = card;
    return { ...said, files, card: more };
  }
  if (entry.kind !== 'visitor-said' && entry.kind !== 'team-said') return null;
  const { seq, id, at, text, files } = entry;
  const person = entry.kind === 'team-said' ? personAt(entry.memberId, doorId) : null;
  return {
    seq,
    id,
    at,
    text,
    files,
    by: person ? 'team' : 'visitor',
    name: person?.name ?? '',
    face: person?.face ?? null,
    ...(entry.kind === 'visitor-said' && entry.callBack ? { callBack: entry.callBack } : {}),
    ...(entry.kind === 'visitor-said' && (entry.tapped || entry.setAside === 'card')
      ? { isTap: true }
      : {}),
    ...(entry.kind === 'team-said' && entry.shelf ? { shelf: entry.shelf } : {}),
  };
};

/** The rows as they are after all of it: one whose people stand in another by then is none any more. */
const newestRows = (news: readonly News[]): Row[] => {
  const rows = new Map<string, Row>();
  for (const { row, entries } of news) {
    rows.set(row.id, row);
    for (const entry of entries) if (entry.kind === 'joined') rows.delete(entry.from);
  }
  return [...rows.values()];
};

/** Who is connected, and telling them. Holds no data: whatever it says can be asked for again. */
export const createHub = (
  personAt: PersonAt,
  countsNow: () => Counts,
  report: (error: unknown) => void,
) => {
  const devices = new Set<Device>();
  const panels = new Map<string, Set<Panel>>();
  const plates = new Set<Plate>();
  let houseMark = randomUUID();

  const apart = (tell: () => void): void => {
    try {
      tell();
    } catch (error) {
      report(error);
    }
  };

  const tellTeam = (message: ToTeam): void => {
    if (devices.size === 0) return;
    const text = JSON.stringify(message);
    for (const device of devices) if (device.isListening) apart(() => device.send(text));
  };

  const tellVisitor = (writer: string, message: ToVisitor): void => {
    for (const panel of panels.get(writer) ?? []) apart(() => panel.send(message));
  };

  const tellPanels = ({ writer, state, entries }: News['told'][number]): void => {
    if (!panels.has(writer)) return;
    const theirs = entries
      .map((entry) => toVisitorEntry(entry, state.doorId, personAt))
      .filter((entry) => entry !== null);
    if (theirs.length > 0) {
      const last = entries[entries.length - 1]?.id ?? null;
      tellVisitor(writer, { say: 'entries', entries: theirs, seq: state.lastSeq, last });
    }
  };

  return {
    /** From its first moment, whether it listens yet or not: it can be signed out. */
    addDevice: (device: Device): (() => void) => {
      devices.add(device);
      return () => devices.delete(device);
    },
    addPanel: (panel: Panel): (() => void) => {
      const theirs = panels.get(panel.writer) ?? new Set();
      panels.set(panel.writer, theirs.add(panel));
      return () => {
        theirs.delete(panel);
        if (theirs.size === 0) panels.delete(panel.writer);
      };
    },
    addPlate: (plate: Plate): (() => void) => {
      plates.add(plate);
      return () => plates.delete(plate);
    },
    /** Ids of those of the team who have a conversation open and in sight. */
    lookingAt: (conversationId: string): string[] =>
      [...devices].filter(({ sees }) => sees === conversationId).map(({ memberId }) => memberId),
    /** Whether somebody of the team has the app in sight on any device. */
    isInSight: (memberId: string): boolean =>
      [...devices].some((device) => device.memberId === memberId && device.isInSight),
    isHere: (writer: string): boolean => panels.has(writer),
    /** Tells everybody concerned what is now on disk; one message to the team, however much it is. */
    publish: (news: readonly News[]): void => {
      const entries = news.flatMap((one) => one.entries);
      if (entries.length === 0) return;
      const last = entries[entries.length - 1];
      const upTo = { seq: last?.seq ?? 0, last: last?.id ?? null };
      apart(() =>
        tellTeam({ say: 'entries', entries, rows: newestRows(news), counts: countsNow(), ...upTo }),
      );
      // A listener that fails is no reason for the others to hear nothing.
      for (const { told } of news) for (const one of told) apart(() => tellPanels(one));
    },
    /** The team hears of the house's light, whoever is at a door of that door's. */
    tellLamp: (
      lamp: TeamLamp,
      atDoor: (doorId: string) => Light,
      usual: number | null,
      opensAt: (doorId: string) => Stretch[],
      now: number,
    ): void => {
      tellTeam({ say: 'lamp', lamp, now });
      const lights = new Map<string, Light>();
      const lightAt = (doorId: string): Light => {
        const light = lights.get(doorId) ?? atDoor(doorId);
        lights.set(doorId, light);
        return light;
      };
      for (const theirs of panels.values()) {
        for (const panel of theirs) {
          apart(() =>
            panel.send({
              say: 'lamp',
              lamp: lightAt(panel.doorId),
              usual,
              opens: opensAt(panel.doorId),
              now,
            }),
          );
        }
      }
      for (const plate of plates) apart(() => plate.send(lightAt(plate.doorId), now));
    },
    /** Another after each change of the house and after a restart: whoever heard nothing sees it by this. */
    houseMark: (): string => houseMark,
    tellHouse: (): void => {
      houseMark = randomUUID();
      tellTeam({ say: 'house' });
    },
    /** Where conversations stand in the line is another, though nothing was said: read it anew. */
    tellLine: (): void => tellTeam({ say: 'line' }),
    tellTeamTyping: (conversationId: string): void => tellTeam({ say: 'typing', conversationId }),
    tellVisitorTyping: (writer: string, name: string): void =>
      tellVisitor(writer, { say: 'typing', name }),
    tellReached: (writer: string, reached: Reached): void =>
      tellVisitor(writer, { say: 'reached', reached }),
    visitorsHere: (): string[] => [...panels.keys()],
    /** Lets everybody go before the server does; they come back by themselves. */
    closePlates: (): void => {
      for (const plate of [...plates]) plate.close();
    },
    closeTeam: (which: (device: Device) => boolean): void => {
      for (const device of [...devices]) if (which(device)) device.close();
    },
  };
};

export type Hub = ReturnType<typeof createHub>;
