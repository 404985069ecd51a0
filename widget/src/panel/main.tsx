import type { FileMention } from '@porch/core/conversation';
import { lampAt } from '@porch/core/lamp';
import { mailAddress } from '@porch/core/links/mail';
import { aheadIn, minutesIn, momentIn } from '@porch/core/when';
import { render } from 'preact';
import { useEffect, useRef, useState } from 'preact/hooks';
import { lampBody, lampGlass, placeGlyphs } from '../glyphs';
import { Composer } from './composer';
import { Consent } from './consent';
import { type Conversation, openConversation } from './conversation';
import { readDoor } from './door';
import { Face } from './face';
import { GuestBook, isAnswered } from './guest-book';
import { type Model, shownDetails } from './model';
import { clockTime, Roll } from './slips';
import { useLate } from './use-late';
import { useSay, useView, View, wear } from './view';

const TYPING_SHOWN_MS = 6_000;
const FACES_MOST = 3;

type State = 'lit' | 'soon' | 'dark';

interface LampShown {
  /** What the light shows, as the texts call it. */
  state: State;
  /** The time that the texts may name. */
  time: string;
  /** When somebody is back, by this device's clock; null: they are, or nobody can tell. */
  back: number | null;
}

const lampOf = (model: Model, now: number): LampShown => {
  const { state, until } = lampAt(model.lamp, now + model.offsetMs);
  if (state === 'lit') return { state, time: '', back: null };
  const back = until === null ? null : until - model.offsetMs;
  if (state === 'dark' || back === null) return { state: 'dark', time: '', back };
  return { state: 'soon', time: clockTime(back), back };
};

const useModel = (conversation: Conversation): Model => {
  const [model, setModel] = useState(conversation.now);
  useEffect(() => {
    // What happened before this was listening is not told again.
    setModel(conversation.now());
    return conversation.watch(setModel);
  }, [conversation]);
  return model;
};

/** Draws again when time alone changes what is shown. */
const useNow = (): number => {
  const [now, setNow] = useState(Date.now);
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1_000);
    return () => clearInterval(timer);
  }, []);
  return now;
};

const LargePicture = (props: {
  conversation: Conversation;
  file: FileMention;
  close: () => void;
}) => {
  const dialog = useRef<HTMLDialogElement>(null);
  const say = useSay();
  const [source, setSource] = useState<string | null>(null);
  const [isMissing, setMissing] = useState(false);
  useEffect(() => {
    dialog.current?.showModal();
    void props.conversation.fetchFile(props.file.id, 'whole').then((url) => {
      setSource(url);
      setMissing(url === null);
    });
  }, [props.conversation, props.file.id]);
  return (
    <dialog ref={dialog} class="large" aria-label={props.file.name} onClose={props.close}>
      <button type="button" class="plain" onClick={() => dialog.current?.close()}>
        {say('closePicture')}
      </button>
      {source && <img src={source} alt={props.file.name} />}
      {!source && <p>{say(isMissing ? 'missingPicture' : 'loadingPicture')}</p>}
    </dialog>
  );
};

/** Whose door it is, and whether somebody is in. */
const Head = (props: { conversation: Conversation; state: State; time: string }) => {
  const { business, look } = useView();
  const say = useSay();
  return (
    <header>
      {look.face !== 'none' && (
        <Face
          name={business.name}
          url={look.face === 'picture' ? (business.picture?.url ?? null) : null}
          shape={business.picture?.shape ?? 'square'}
        />
      )}
      <svg class={props.state} viewBox="0 0 24 24" aria-hidden="true">
        <path class="glass" d={lampGlass} />
        <path d={lampBody} />
      </svg>
      <div>
        <h1 dir="auto">{business.name}</h1>
        <p role="status" dir="auto">
          {say(`title.${props.state}`, { time: props.time })}
        </p>
      </div>
      {props.conversation.isFramed && (
        <button type="button" class="plain close" onClick={props.conversation.close}>
          {say('close')}
        </button>
      )}
    </header>
  );
};

/** When somebody is back, or how long an answer usually takes while somebody is in. */
const When = (props: { lamp: LampShown; usual: number | null; now: number }) => {
  const { language } = useView();
  const say = useSay();
  const { lamp, usual, now } = props;
  if (lamp.back !== null) {
    const time = momentIn({ language }, lamp.back, now);
    const ahead = aheadIn(language, lamp.back - now);
    return (
      <p class="sign" dir="auto">
        {say('back', { time, ahead })}
      </p>
    );
  }
  if (lamp.state !== 'lit' || usual === null) return null;
  return (
    <p class="sign" dir="auto">
      {say('usual', { span: minutesIn(language, usual) })}
    </p>
  );
};

/** When it is open in the days that come, by this device's clock. */
const Opens = ({ opens, offsetMs }: Pick<Model, 'opens' | 'offsetMs'>) => {
  const { language } = useView();
  const say = useSay();
  if (opens.length === 0) return null;
  return (
    <section class="opens">
      <h2>{say('hours')}</h2>
      <ul>
        {opens.map(([from, to]) => (
          <li key={from}>
            {new Date(from - offsetMs).toLocaleDateString(language, {
              weekday: 'long',
              day: 'numeric',
              month: 'short',
            })}
            {' \u00b7 '}
            {clockTime(from - offsetMs)}\u2013{clockTime(to - offsetMs)}
          </li>
        ))}
      </ul>
    </section>
  );
};

const Sign = (props: {
  lamp: LampShown;
  usual: number | null;
  now: number;
  /** Nobody takes a note. */
  isHoursOnly: boolean;
}) => {
  const { state, time } = props.lamp;
  const { business } = useView();
  const say = useSay();
  const people = business.people.slice(0, FACES_MOST);
  return (
    <>
      {people.length > 0 && (
        <ul class="people">
          {people.map((person) => (
            <li key={person.name}>
              <Face name={person.name} url={person.face} />
              <span dir="auto">{person.name}</span>
            </li>
          ))}
        </ul>
      )}
      <p class="sign" dir="auto">
        {props.isHoursOnly ? say('hoursOnly') : say(`sign.${state}`, { time })}
      </p>
      <When {...props} />
      <Places />
      {state !== 'lit' && business.address && (
        <p class="sign">
          <a href={mailAddress(business.address)}>{say('write', { address: business.address })}</a>
        </p>
      )}
    </>
  );
};

/** The newest answer's first words, beside the plate; a tap opens the rest. */
const Glance = ({ conversation, model }: { conversation: Conversation; model: Model }) => {
  const say = useSay();
  const said = model.entries.findLast(({ by }) => by === 'team');
  const words = said?.text || said?.files[0]?.name || '';
  return (
    <div class="panel glance">
      <button type="button" class="first" onClick={conversation.open}>
        <b dir="auto">{said?.name}</b>
        <span dir="auto">{words}</span>
      </button>
      <button type="button" class="plain close" onClick={conversation.close}>
        {say('close')}
      </button>
    </div>
  );
};

/** Other places where the business is to be found. */
const Places = () => {
  const { links } = useView();
  if (links.length === 0) return null;
  return (
    <ul class="places">
      {links.map(({ glyph, label, url }) => (
        <li key={url}>
          <a href={url} target="_blank" rel="noopener noreferrer">
            <svg viewBox="0 0 24 24" aria-hidden="true">
              <path d={placeGlyphs[glyph]} />
            </svg>
            <span dir="auto">{label}</span>
          </a>
        </li>
      ))}
    </ul>
  );
};

const Panel = ({ conversation, door }: { conversation: Conversation; door: string }) => {
  const model = useModel(conversation);
  const view = useView();
  const say = useSay();
  const now = useNow();
  const [large, setLarge] = useState<FileMention | null>(null);
  const end = useRef<HTMLDivElement>(null);
  const lamp = lampOf(model, now);
  const { state, time } = lamp;
  const isNote = state !== 'lit';
  const isHoursOnly = isNote && view.whenNotLit === 'hours';
  const page = isNote ? view.guestBook.notLit : view.guestBook.lit;
  const hasTalked = model.entries.some(({ by, isTap }) => by !== 'door' && !isTap);
  const Asked = useLate(view.asked.isAny)?.Asked;
  const OtherWays = useLate(view.business.ways.length > 0)?.OtherWays;
  const OrderForm = useLate(view.orders)?.OrderForm;
  const CallBackForm = useLate(view.callBack)?.CallBackForm;
  const said = model.entries.length + model.queue.length;
  const isTyping = model.typing !== null && now - model.typing.at < TYPING_SHOWN_MS;
  const isConsentMissing = view.consent !== null && !model.hasAgreed;
  const isAskedFirst = page.when === 'before' && !hasTalked && said === 0;
  const mustAnswerFirst =
    isAskedFirst &&
    page.fields.some(({ isRequired }) => isRequired) &&
    !isAnswered(page, shownDetails(model), isNote);

  const newest = `${said} ${isTyping} ${hasTalked}`;
  useEffect(() => {
    if (newest) end.current?.scrollIntoView({ block: 'end' });
  }, [newest]);

  useEffect(() => {
    const close = (event: KeyboardEvent): void => {
      if (event.key === 'Escape' && !document.querySelector('dialog[open]')) conversation.close();
    };
    addEventListener('keydown', close);
    return () => removeEventListener('keydown', close);
  }, [conversation]);

  if (conversation.isGlancing()) return <Glance conversation={conversation} model={model} />;
  if (conversation.isClosed) {
    return (
      <div class="panel">
        <Head conversation={conversation} state="dark" time="" />
        <p class="scroll">{say('closed')}</p>
      </div>
    );
  }
  return (
    <div class="panel">
      <Head conversation={conversation} state={state} time={time} />
      <div class="scroll">
        <Sign lamp={lamp} usual={model.usual} now={now} isHoursOnly={isHoursOnly} />
        {isHoursOnly && <Opens opens={model.opens} offsetMs={model.offsetMs} />}
        {said === 0 && !model.greeting && !mustAnswerFirst && !isHoursOnly && (
          <p class="empty" dir="auto">
            {say(`empty.${state}`, { time })}
          </p>
        )}
        <Roll conversation={conversation} model={model} open={setLarge} />
        {Asked && !mustAnswerFirst && (
          <Asked
            conversation={conversation}
            model={model}
            state={state}
            isMute={isHoursOnly}
            isConsentMissing={isConsentMissing}
          />
        )}
        <p class="typing" role="status">
          {isTyping ? say('typing', { name: model.typing?.name ?? '' }) : ''}
        </p>
        {page.when !== 'never' && (hasTalked || (isAskedFirst && !isHoursOnly)) && (
          <GuestBook
            key={isNote ? 'note' : 'lit'}
            conversation={conversation}
            model={model}
            door={door}
            page={page}
            state={state}
          />
        )}
        {OrderForm && !mustAnswerFirst && (
          <OrderForm
            conversation={conversation}
            contact={shownDetails(model).email || shownDetails(model).phone}
            answer={model.entries.findLast(({ isOrder }) => isOrder)?.seq}
            isConsentMissing={isConsentMissing}
          />
        )}
        {!isConsentMissing && OtherWays && <OtherWays conversation={conversation} />}
        {!isConsentMissing && CallBackForm && (
          <CallBackForm conversation={conversation} phone={shownDetails(model).phone} />
        )}
        <div ref={end} />
      </div>
      {model.isWelcome && !model.isConnected && (
        <p class="offline" role="status">
          {say('offline')}
        </p>
      )}
      {model.isConnected && model.isHeldUp && (
        <p class="offline" role="status">
          {say('heldUp')}
        </p>
      )}
      {isConsentMissing && !isHoursOnly && <Consent conversation={conversation} />}
      {!mustAnswerFirst && !isHoursOnly && (
        <Composer
          conversation={conversation}
          door={door}
          state={state}
          isConsentMissing={isConsentMissing}
        />
      )}
      {large && (
        <LargePicture conversation={conversation} file={large} close={() => setLarge(null)} />
      )}
    </div>
  );
};

/** The panel as it is dressed; a draft's dress comes from the page around it, and may change. */
const Dressed = ({ conversation, door }: { conversation: Conversation; door: string }) => {
  const [view, setView] = useState(conversation.view);
  useEffect(() => {
    const look = (): void => setView(conversation.view());
    // A draft may have come before this was listening.
    look();
    return conversation.watch(look);
  }, [conversation]);
  if (!view) return null;
  wear(view);
  return (
    <View.Provider value={view}>
      <Panel conversation={conversation} door={door} />
    </View.Provider>
  );
};

const door = readDoor();
const root = document.getElementById('panel');
if (root) {
  render(<Dressed conversation={openConversation(door)} door={door.door} />, root);
}
