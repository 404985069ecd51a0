import type { FileMention } from '@porch/core/conversation';
import { useEffect, useRef, useState } from 'preact/hooks';
import { lampBody, lampGlass } from '../glyphs';
import { Aside, type AsideOpen, Ways } from './aside';
import { Composer } from './composer';
import { Consent } from './consent';
import type { Conversation, FoundCard } from './conversation';
import { Face } from './face';
import { GuestBook, isAnswered } from './guest-book';
import { type Model, shownDetails } from './model';
import { slipId } from './said';
import { Roll } from './slips';
import { useLate } from './use-late';
import { useSay, useView } from './view';
import { lampOf, Opens, type State, useWhen, Welcome } from './welcome';

const TYPING_SHOWN_MS = 6_000;

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

/** Whose door it is, whether somebody is in, and when an answer is to be expected. */
const Head = (props: { conversation: Conversation; state: State; time: string; when: string }) => {
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
        <p dir="auto">
          <span role="status">{say(`title.${props.state}`, { time: props.time })}</span>
          {props.when && <span class="when"> · {props.when}</span>}
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

/** Goes on at an answer that was asked for by a button: the button is gone by then. */
const useAnswer = ({ entries }: Model) => {
  const [awaitedAfter, awaitAfter] = useState<number | null>(null);
  const seq = entries.findLast(({ card, isOrder }) => card || isOrder)?.seq ?? 0;
  useEffect(() => {
    if (awaitedAfter === null || seq <= awaitedAfter) return;
    // After the roll has gone to its end: whoever asked reads the answer, whatever stands below it.
    const frame = requestAnimationFrame(() => {
      awaitAfter(null);
      const { activeElement } = document;
      if (activeElement !== document.body && !activeElement?.closest('.aside')) return;
      document.getElementById(slipId(seq))?.focus({ preventScroll: true });
    });
    return () => cancelAnimationFrame(frame);
  }, [seq, awaitedAfter]);
  return awaitAfter;
};

/** What opens at the plate: who is in, what was said, and where to write. */
export const Panel = ({ conversation, door }: { conversation: Conversation; door: string }) => {
  const model = useModel(conversation);
  const view = useView();
  const say = useSay();
  const now = useNow();
  const [large, setLarge] = useState<FileMention | null>(null);
  const [chosen, choose] = useState<AsideOpen | undefined>();
  const [problem, setProblem] = useState('');
  const end = useRef<HTMLDivElement>(null);
  const write = useRef<((text: string) => void) | null>(null);
  const awaitAfter = useAnswer(model);
  const newestSeq = model.entries.at(-1)?.seq ?? 0;
  const lamp = lampOf(model, now, view.locale);
  const when = useWhen(lamp, model.usual, now);
  const { state, time } = lamp;
  const isNote = state !== 'lit';
  const isHoursOnly = isNote && view.whenNotLit === 'hours';
  const page = isNote ? view.guestBook.notLit : view.guestBook.lit;
  const hasTalked = model.entries.some(({ by, isTap }) => by !== 'door' && !isTap);
  const Asked = useLate(view.asked.isAny)?.Asked;
  const said = model.entries.length + model.queue.length;
  const isTyping = model.typing !== null && now - model.typing.at < TYPING_SHOWN_MS;
  // While they are back soon the title says it already; whoever has their answer waits for none.
  const isWaiting = model.queue.length > 0 || model.entries.at(-1)?.by === 'visitor';
  const isWhenSaid = said > 0 && state !== 'soon' && (isNote || isWaiting);
  const isConsentMissing = view.consent !== null && !model.hasAgreed;
  const isAskedFirst = page.when === 'before' && !hasTalked && said === 0;
  const needsDetails =
    page.fields.some(({ isRequired }) => isRequired) &&
    !isAnswered(page, shownDetails(model), isNote);
  const mustAnswerFirst = isAskedFirst && needsDetails;
  const asksDetails = page.when !== 'never' && hasTalked;
  const open = chosen === undefined ? (asksDetails && needsDetails ? 'guest' : null) : chosen;

  const newest = `${said} ${isTyping} ${hasTalked} ${open}`;
  useEffect(() => {
    if (newest) end.current?.scrollIntoView({ block: 'end' });
  }, [newest]);

  useEffect(() => {
    // A keyboard that comes up takes the room of what was said last.
    const resized = (): void => {
      if (document.activeElement?.matches('textarea, input'))
        end.current?.scrollIntoView({ block: 'end' });
    };
    addEventListener('resize', resized);
    return () => removeEventListener('resize', resized);
  }, []);

  useEffect(() => {
    const close = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape' || document.querySelector('dialog[open]')) return;
      if (open) choose(null);
      else conversation.close();
    };
    addEventListener('keydown', close);
    return () => removeEventListener('keydown', close);
  }, [conversation, open]);

  const mayAsk = (): boolean => {
    setProblem(isConsentMissing ? say('consentFirst') : '');
    if (isConsentMissing) document.getElementById('consent')?.focus();
    return !isConsentMissing;
  };
  const tap = (card: FoundCard): void => {
    if (!mayAsk()) return;
    choose(null);
    awaitAfter(newestSeq);
    conversation.tap(card);
  };
  const askPerson = (): void => {
    if (mayAsk()) conversation.say(say('askedPerson'), []);
  };
  const shut = (): void => choose(null);
  const ways = {
    conversation,
    model,
    isConsentMissing,
    newestSeq,
    found: (after: number): void => {
      shut();
      awaitAfter(after);
    },
    asked: shut,
  };

  if (conversation.isGlancing()) return <Glance conversation={conversation} model={model} />;
  if (conversation.isClosed) {
    return (
      <div class="panel">
        <Head conversation={conversation} state="dark" time="" when="" />
        <p class="scroll">{say('closed')}</p>
      </div>
    );
  }
  return (
    <div class="panel">
      <Head conversation={conversation} state={state} time={time} when={isWhenSaid ? when : ''} />
      <div class="scroll">
        {said === 0 && (
          <Welcome lamp={lamp} usual={model.usual} now={now} isHoursOnly={isHoursOnly} />
        )}
        {isHoursOnly && <Opens opens={model.opens} offsetMs={model.offsetMs} />}
        {said === 0 && !model.greeting && !mustAnswerFirst && !isHoursOnly && (
          <p class="empty" dir="auto">
            {say(`empty.${state}`, { time })}
          </p>
        )}
        <Roll
          conversation={conversation}
          model={model}
          open={setLarge}
          write={(text) => write.current?.(text)}
        />
        {Asked && !mustAnswerFirst && (
          <Asked
            conversation={conversation}
            model={model}
            state={state}
            isMute={isHoursOnly}
            tap={tap}
            askPerson={askPerson}
          />
        )}
        <p class="typing" role="status">
          {isTyping ? say('typing', { name: model.typing?.name ?? '' }) : ''}
        </p>
        {isAskedFirst && !isHoursOnly && (
          <GuestBook
            key={isNote ? 'note' : 'lit'}
            conversation={conversation}
            model={model}
            door={door}
            page={page}
            state={state}
          />
        )}
        {said === 0 && <Ways {...ways} isOrderShut={mustAnswerFirst} />}
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
      {said > 0 && (
        <Aside
          {...ways}
          state={state}
          tap={tap}
          door={door}
          page={asksDetails ? page : null}
          open={open}
          // By itself it opens without a tap, and leaves the writer at what they write.
          takesFocus={chosen !== undefined}
          setOpen={choose}
        />
      )}
      {isConsentMissing && problem && (
        <p class="problem" role="alert">
          {problem}
        </p>
      )}
      {isConsentMissing && !isHoursOnly && <Consent conversation={conversation} />}
      {!mustAnswerFirst && !isHoursOnly && (
        <Composer
          conversation={conversation}
          door={door}
          state={state}
          isConsentMissing={isConsentMissing}
          write={write}
        />
      )}
      {large && (
        <LargePicture conversation={conversation} file={large} close={() => setLarge(null)} />
      )}
    </div>
  );
};
