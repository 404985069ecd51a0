import type { VisitorEntry } from '@porch/contract/visitor';
import { blocksOf } from '@porch/core/cards/guide';
import type { FileMention } from '@porch/core/conversation';
import type { DoorView, ShownField } from '@porch/core/dress';
import { useEffect, useRef, useState } from 'preact/hooks';
import type { Conversation, FoundCard } from './conversation';
import { Field, problemsIn, toGiven } from './guest-book';
import { type Model, shownDetails } from './model';
import { Picture, Words } from './said';
import { sayRefusal, useSay, useView } from './view';
import type { State } from './welcome';

/** Whoever left a note longer ago is not asked whether a card would have done. */
const NOTE_IS_NEW_MS = 120_000;
const TYPED_LONGEST = 200;
const SEARCH_AFTER_MS = 250;

type CardEntry = VisitorEntry & { card: NonNullable<VisitorEntry['card']> };

/** The cards that are offered first while the light is as it is. */
const firstCards = ({ asked }: DoorView, state: State) => {
  const light = state === 'soon' ? 'back-soon' : state;
  return asked.first.filter(({ states }) => states.includes(light));
};

/** Whether there is anything to choose from or to look in. */
const hasAsked = (view: DoorView, state: State): boolean =>
  view.asked.isSearched || firstCards(view, state).length > 0;

const blockKey = (at: number): string => `block ${at}`;

/** A card's answer: words, or a guide with headings, steps and pictures. */
export const Guide = (props: {
  conversation: Conversation;
  entry: VisitorEntry;
  open: (file: FileMention) => void;
}) => {
  const { entry } = props;
  const say = useSay();
  const link = entry.card?.link;
  return (
    <div class="guide" dir="auto">
      {blocksOf(entry.text, entry.files.length).map((block, at) => {
        const key = blockKey(at);
        switch (block.kind) {
          case 'heading':
            return <h3 key={key}>{block.text}</h3>;
          case 'text':
            return <Words key={key} text={block.text} />;
          case 'picture': {
            const file = entry.files[block.at];
            return file ? <Picture key={key} {...props} file={file} /> : null;
          }
          default: {
            const List = block.kind === 'steps' ? 'ol' : 'ul';
            return (
              <List key={key}>
                {block.each.map((text, place) => (
                  <li key={blockKey(place)}>
                    <Words text={text} />
                  </li>
                ))}
              </List>
            );
          }
        }
      })}
      {link && (
        <a href={link} target="_blank" rel="noopener noreferrer">
          {say('askedMore')}
        </a>
      )}
    </div>
  );
};

const Buttons = (props: {
  label: string;
  cards: readonly FoundCard[];
  tap: (card: FoundCard) => void;
}) => (
  <ul aria-label={props.label}>
    {props.cards.map((card) => (
      <li key={card.id}>
        <button type="button" class="card" dir="auto" onClick={() => props.tap(card)}>
          {card.question}
        </button>
      </li>
    ))}
  </ul>
);

/** A detail that a card asks for; goes on to what follows once it was given. */
const Asks = (props: {
  conversation: Conversation;
  model: Model;
  entry: CardEntry;
  given: () => void;
}) => {
  const { conversation, model, entry } = props;
  const { asks } = entry.card;
  const say = useSay();
  const [problem, setProblem] = useState('');
  if (!asks) return null;
  const isOwn = asks.field === 'own';
  const field: ShownField = {
    id: isOwn ? entry.card.id : asks.field,
    kind: asks.field === 'own' ? 'text' : asks.field,
    label: asks.field === 'own' ? asks.label : say(asks.field),
    choices: [],
    isRequired: true,
  };
  const details = shownDetails(model);
  const known = asks.field === 'own' ? details.own[field.id] : details[asks.field];
  const save = async (form: HTMLFormElement): Promise<void> => {
    const typed = new Map([[field.id, String(new FormData(form).get(field.id) ?? '').trim()]]);
    const found = problemsIn([field], typed, false, say)[field.id] ?? '';
    setProblem(found);
    if (found) return;
    const refusal = await conversation.giveDetails(toGiven([field], typed));
    setProblem(refusal ? sayRefusal(say, refusal) : '');
    if (!refusal) props.given();
  };
  return (
    <form
      class="guest"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void save(event.currentTarget);
      }}
    >
      <Field field={field} value={known ?? ''} problem={problem} />
      <div class="row">
        <button type="submit" class="send">
          {say('save')}
        </button>
      </div>
    </form>
  );
};

/** Finds cards by what is typed. */
const Search = (props: { conversation: Conversation; tap: (card: FoundCard) => void }) => {
  const { conversation } = props;
  const say = useSay();
  const [typed, setTyped] = useState('');
  const [found, setFound] = useState<FoundCard[] | null>(null);
  useEffect(() => {
    if (typed.trim().length < 2) {
      setFound(null);
      return;
    }
    let isOld = false;
    const timer = setTimeout(() => {
      void conversation.find(typed, 'search').then((cards) => {
        if (!isOld) setFound(cards);
      });
    }, SEARCH_AFTER_MS);
    return () => {
      isOld = true;
      clearTimeout(timer);
    };
  }, [conversation, typed]);
  return (
    <div class="search">
      <input
        type="search"
        aria-label={say('askedFind')}
        placeholder={say('askedFind')}
        maxLength={TYPED_LONGEST}
        value={typed}
        onInput={(event) => setTyped(event.currentTarget.value)}
      />
      <div role="status">{found?.length === 0 && <p>{say('askedNothing')}</p>}</div>
      {found && found.length > 0 && (
        <Buttons label={say('askedFind')} cards={found} tap={props.tap} />
      )}
    </div>
  );
};

/** What was left as a note a moment ago, and nothing was said to it but by the door. */
const freshNote = (model: Model): VisitorEntry | null => {
  const said = model.entries.findLast(
    ({ by, isTap }) => by === 'team' || (by === 'visitor' && !isTap),
  );
  if (said?.by !== 'visitor' || !said.text) return null;
  return said.at - model.offsetMs > Date.now() - NOTE_IS_NEW_MS ? said : null;
};

/** Cards that may answer what was just left. */
const useOffers = (conversation: Conversation, model: Model, isWanted: boolean) => {
  const note = isWanted ? freshNote(model) : null;
  const asked = useRef<string | null>(null);
  const [offers, setOffers] = useState<{ note: string; cards: FoundCard[] } | null>(null);
  const id = note?.id ?? null;
  const text = note?.text ?? '';
  useEffect(() => {
    if (id === null || asked.current === id || !model.isConnected) return;
    asked.current = id;
    void conversation.find(text, 'note').then((cards) => {
      if (cards?.length) setOffers({ note: id, cards });
    });
  }, [conversation, id, text, model.isConnected]);
  return { offers: offers?.note === id ? offers.cards : null, close: () => setOffers(null) };
};

/** All that is asked often, to look in and to choose from. */
export const AskedAll = (props: {
  conversation: Conversation;
  state: State;
  tap: (card: FoundCard) => void;
}) => {
  const view = useView();
  const say = useSay();
  const first = firstCards(view, props.state);
  return (
    <>
      {view.asked.isSearched && <Search conversation={props.conversation} tap={props.tap} />}
      {first.length > 0 && <Buttons label={say('asked')} cards={first} tap={props.tap} />}
    </>
  );
};

/** What is asked often: as buttons, with what follows after one, and always a person besides. */
export const Asked = (props: {
  conversation: Conversation;
  model: Model;
  state: State;
  /** Nobody takes a message. */
  isMute: boolean;
  /** A card is tapped. */
  tap: (card: FoundCard) => void;
  /** They ask for a person. */
  askPerson: () => void;
}) => {
  const { conversation, model, isMute, tap } = props;
  const view = useView();
  const say = useSay();
  const isNote = props.state !== 'lit';
  const [done, setDone] = useState('');
  const { offers, close } = useOffers(conversation, model, isNote && view.asked.isAny);
  const last = model.entries.findLast(({ by, card }) => by !== 'door' || card);
  const card = last?.card && model.queue.length === 0 ? (last as CardEntry) : null;
  const isEmpty = model.entries.length + model.queue.length === 0;

  const isEnough = async (id: string): Promise<void> => {
    if (!(await conversation.enough())) return;
    setDone(id);
    close();
  };

  const next = card?.card.offers ?? [];
  const follows =
    card &&
    (card.card.asks ? (
      <Asks
        key={card.id}
        conversation={conversation}
        model={model}
        entry={card}
        given={() => (next[0] ? tap(next[0]) : setDone(card.id))}
      />
    ) : (
      next.length > 0 && <Buttons label={say('asked')} cards={next} tap={tap} />
    ));
  if (offers) {
    return (
      <section class="asked" aria-label={say('askedThese')}>
        {card ? (
          <>
            {follows}
            <button type="button" class="send enough" onClick={() => void isEnough(card.id)}>
              {say('askedEnough')}
            </button>
          </>
        ) : (
          <>
            <h2>{say('askedThese')}</h2>
            <Buttons label={say('askedThese')} cards={offers} tap={tap} />
          </>
        )}
        <button type="button" class="plain" onClick={close}>
          {say('askedNote')}
        </button>
      </section>
    );
  }
  if (isEmpty) {
    if (!hasAsked(view, props.state)) return null;
    return (
      <section class="asked" aria-label={say('asked')}>
        <h2>{say('asked')}</h2>
        <AskedAll conversation={conversation} state={props.state} tap={tap} />
      </section>
    );
  }
  if (card && card.id !== done) {
    return (
      <section class="asked" aria-label={say('asked')}>
        {follows}
        {!isMute && (
          <button type="button" class="card person" onClick={props.askPerson}>
            {say('askedPerson')}
          </button>
        )}
      </section>
    );
  }
  return (
    <p role="status">
      {done !== '' && card?.id === done ? say(isNote ? 'askedDone' : 'thanks') : ''}
    </p>
  );
};
