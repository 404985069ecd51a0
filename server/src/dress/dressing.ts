import type { Dressed } from '@porch/contract/dress';
import type { Member } from '@porch/contract/people';
import type { Card, Cards } from '@porch/core/cards';
import {
  type Dress,
  type OwnField,
  plainDress,
  problemsOf,
  SUBJECT,
  textsOf,
  tidyDress,
} from '@porch/core/dress';
import { type Greeting, triedGreeting } from '@porch/core/greetings';
import type { Clock } from '../clock';
import { refuseStrangePictures } from '../files/strange';
import type { Change } from '../inbox/batch';
import { Refused } from '../refused';
import { hashSecret, newSecret } from '../security/tokens';
import type { PublishedRecord, Store } from '../store';

/** How long the owner may try a draft on their own website. */
export const TRIAL_MS = 30 * 60_000;
/** An owner tries it on their phone as well, and from the shop. */
const ADDRESSES_MOST = 20;
const TRIALS_MOST = 100;

/** A door that was never dressed at all. */
const plain: PublishedRecord = { version: 0, dress: plainDress(), publishedAt: 0 };

/** What a note is about, asked in the words of the door. */
const subjectOf = (dress: Dress): OwnField => ({
  id: SUBJECT,
  kind: 'text',
  label: textsOf(dress, dress.fallback).subject,
  choices: [],
});

/** What a card asks for in its owner's words, as a question of the door. */
const questionOfCard = ({ id, leads }: Card): OwnField[] =>
  leads.to === 'ask' && leads.asks.field === 'own'
    ? [{ id, kind: 'text', label: leads.asks.label, choices: [] }]
    : [];

const picturesOf = ({ asked }: Dress): string[] => [
  ...new Set(asked.cards.flatMap(({ pictureIds }) => pictureIds)),
];

/** How doors are dressed: drafts, publishing, taking it back, and trying it on. */
export const createDressing = (services: { store: Store; clock: Clock; change: Change }) => {
  const { store, clock, change } = services;
  // In memory on purpose: a trial shows a draft and nothing else, and a restart may end it.
  const trials = new Map<
    string,
    { doorId: string; until: number; greeting?: string; addresses: Set<string> }
  >();

  // Asked for with every message; what is kept here is dropped when a door changes.
  const known = new Map<string, PublishedRecord>();
  let changes = 0;

  const publishedOf = (doorId: string): PublishedRecord => {
    const published = known.get(doorId) ?? store.dresses.published(doorId) ?? plain;
    known.set(doorId, published);
    return published;
  };

  /** Whether something that was published before is still there. */
  const canUndo = (doorId: string): boolean => store.dresses.published(doorId, 1) !== null;

  const dressedOf = (doorId: string): Dressed => {
    const { draft, revision, changedBy } = store.dresses.draft(doorId);
    const { version, dress, publishedAt } = publishedOf(doorId);
    return {
      draft: draft ?? dress,
      published: dress,
      isDraft: draft !== null,
      revision,
      version,
      publishedAt,
      changedBy: (changedBy && store.members.shownOf(changedBy)?.name) || '',
      canUndo: canUndo(doorId),
    };
  };

  const isTried = (doorId: string): boolean =>
    [...trials.values()].some((trial) => trial.doorId === doorId && trial.until > clock.steady());

  /** What somebody at this door may have been asked: what is published, and a draft while it is tried. */
  const askedBy = (doorId: string): Dress[] => {
    const { dress } = publishedOf(doorId);
    return isTried(doorId) ? [dress, dressedOf(doorId).draft] : [dress];
  };

  const openDoors = (): string[] =>
    store.doors.standing().flatMap(({ id, closedAt }) => (closedAt === null ? id : []));

  /** Pictures of cards are brought along by the team, or are the door's already. */
  const refusePictures = (doorId: string, dress: Dress): void =>
    refuseStrangePictures(
      store,
      picturesOf(dress),
      (id) => store.cards.hasFile(doorId, id),
      'asked',
    );

  /** Runs a change that builds on a revision: whoever comes second is told, and changes nothing. */
  const build = (doorId: string, revision: number, work: () => void): Dressed => {
    known.delete(doorId);
    return change(() => {
      if (store.dresses.draft(doorId).revision !== revision) throw new Refused('changed-meanwhile');
      work();
      known.delete(doorId);
      changes += 1;
      return dressedOf(doorId);
    });
  };

  return {
    of: dressedOf,
    /** What visitors see of a door now. */
    published: (doorId: string): Dress => publishedOf(doorId).dress,
    /** What somebody sees who says that they try the draft: that, while it is tried. */
    worn: (doorId: string, isTrial: boolean): Dress =>
      isTrial && isTried(doorId) ? dressedOf(doorId).draft : publishedOf(doorId).dress,
    isDressed: (doorId: string): boolean => publishedOf(doorId).version > 1,
    save: (doorId: string, revision: number, dress: Dress, member: Member): Dressed => {
      const [problem] = problemsOf(dress);
      if (problem) throw new Refused(problem.code, { field: problem.field, limit: problem.limit });
      const tidy = tidyDress(dress);
      return build(doorId, revision, () => {
        refusePictures(doorId, tidy);
        for (const id of picturesOf(tidy)) store.cards.keepFile(doorId, id);
        store.dresses.setDraft(doorId, tidy, member.id);
      });
    },
    publish: (doorId: string, revision: number, member: Member): Dressed =>
      build(doorId, revision, () => {
        const { draft } = store.dresses.draft(doorId);
        if (!draft) return;
        store.dresses.publish(doorId, draft, clock.now());
        store.dresses.setDraft(doorId, null, member.id);
      }),
    /** Back to what was published before; what is taken back stays as the draft. */
    undo: (doorId: string, revision: number, member: Member): Dressed =>
      build(doorId, revision, () => {
        const { dress } = publishedOf(doorId);
        if (!canUndo(doorId)) throw new Refused('nothing-to-undo');
        const { draft } = store.dresses.draft(doorId);
        store.dresses.dropNewest(doorId);
        store.dresses.setDraft(doorId, draft ?? dress, member.id);
      }),
    /**
     * Changes what is asked often at a door for all to see, and in a draft that there is: what stands there otherwise
     * stays. In the transaction of whatever it follows from.
     */
    changeAsked: (doorId: string, alter: (asked: Cards) => Cards): void => {
      const { dress } = store.dresses.published(doorId) ?? plain;
      const { draft, changedBy } = store.dresses.draft(doorId);
      const altered = (one: Dress): Dress => ({ ...one, asked: alter(one.asked) });
      known.delete(doorId);
      changes += 1;
      store.dresses.publish(doorId, altered(dress), clock.now());
      store.dresses.setDraft(doorId, draft && altered(draft), changedBy);
    },
    /** A token with which a website's page shows the draft, for a while. */
    openTrial: (doorId: string, greeting?: string): string => {
      const token = newSecret();
      const [oldest] = trials.keys();
      if (oldest && trials.size >= TRIALS_MOST) trials.delete(oldest);
      const until = clock.steady() + TRIAL_MS;
      trials.set(hashSecret(token), { doorId, until, greeting, addresses: new Set() });
      return token;
    },
    /** Whether a trial of a door was opened, with its token, from an address. */
    isTriedFrom: (doorId: string, address: string): boolean =>
      [...trials.values()].some(
        (trial) =>
          trial.doorId === doorId && trial.until > clock.steady() && trial.addresses.has(address),
      ),
    /** The draft that a trial's token opens; of its greetings only the one that is tried, where one is. */
    tried: (doorId: string, token: string, address: string): Dress => {
      const trial = trials.get(hashSecret(token));
      if (!trial || trial.doorId !== doorId || trial.until <= clock.steady()) {
        throw new Refused('link-stale');
      }
      if (trial.addresses.size < ADDRESSES_MOST) trial.addresses.add(address);
      const { draft } = dressedOf(doorId);
      const { greeting } = trial;
      if (greeting === undefined) return draft;
      const tried = draft.greetings.filter(({ id }) => id === greeting);
      return { ...draft, greetings: tried.map(triedGreeting) };
    },
    /** A greeting as somebody at this door may have been greeted. */
    greetingOf: (doorId: string, id: string): Greeting | null =>
      askedBy(doorId)
        .flatMap(({ greetings }) => greetings)
        .find((greeting) => greeting.id === id) ?? null,
    /** A door's own question as it was asked; null when it is none of this door's. */
    questionOf: (doorId: string, id: string): OwnField | null => {
      if (id === SUBJECT) return subjectOf(publishedOf(doorId).dress);
      const asked = askedBy(doorId)
        .flatMap(({ guestBook, asked: { cards } }) => [
          ...guestBook.own,
          ...cards.flatMap(questionOfCard),
        ])
        .find((field) => field.id === id);
      return asked ?? null;
    },
    /** All cards that are published at any door; each once. */
    cards: (): Card[] => {
      const all = openDoors().flatMap((id) => publishedOf(id).dress.asked.cards);
      return [...new Map(all.map((card) => [card.id, card])).values()];
    },
    /** Another one when any door is dressed otherwise, opened or closed. */
    mark: (): string => `${changes} ${openDoors().join(' ')}`,
    /** A card of a door, and those among which it leads on; null when there is none of that id. */
    cardOf: (doorId: string, id: string): { all: Cards; card: Card } | null => {
      for (const { asked } of askedBy(doorId)) {
        const card = asked.cards.find((one) => one.id === id);
        if (card) return { all: asked, card };
      }
      return null;
    },
    /** Whether a visitor of this door has to agree before anything of them is kept. */
    isConsentAsked: (doorId: string): boolean => publishedOf(doorId).dress.consent.isAsked,
    /** What was agreed to, in the visitor's language; null where nothing is asked. */
    consentOf: (doorId: string, language: string): { text: string; link: string } | null => {
      const asked = askedBy(doorId).find((dress) => dress.consent.isAsked);
      return asked ? { text: textsOf(asked, language).consent, link: asked.consent.link } : null;
    },
  };
};

export type Dressing = ReturnType<typeof createDressing>;
