import type { VisitorEntry } from '@porch/contract/visitor';
import type { CallBack, FileMention } from '@porch/core/conversation';
import { Fragment } from 'preact';
import { useEffect, useState } from 'preact/hooks';
import { clockTime } from './clock-time';
import type { Conversation } from './conversation';
import { Face } from './face';
import { Files } from './files';
import { type MessageState, type Model, stateOf } from './model';
import type { Load, PanelParcel } from './parcels';
import { slipId, Words } from './said';
import { useLate } from './use-late';
import { type Say, sayRefusal, useSay, useView } from './view';

const dayOf = (at: number, now: number, say: Say, locale: string): string => {
  const days = Math.round(
    (new Date(now).setHours(0, 0, 0, 0) - new Date(at).setHours(0, 0, 0, 0)) / 86_400_000,
  );
  if (days === 0) return say('today');
  if (days === 1) return say('yesterday');
  return new Date(at).toLocaleDateString(locale, {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
  });
};

const Top = (props: {
  who: string;
  face?: string | null;
  at: number;
  state?: MessageState;
  /** From where it comes. */
  mark?: string;
}) => {
  const { locale } = useView();
  const say = useSay();
  return (
    <p class="top">
      {props.face !== undefined && <Face name={props.who} url={props.face} />}
      <b dir="auto">{props.who}</b>{' '}
      <time dateTime={new Date(props.at).toISOString()}>{clockTime(props.at, locale)}</time>
      {props.mark && <span>{props.mark}</span>}
      {props.state && props.state !== 'failed' && (
        <span class={`state ${props.state}`}>{say(props.state)}</span>
      )}
    </p>
  );
};

/** That they asked to be called, as they asked for it. */
const Called = ({ phone, at }: CallBack) => {
  const say = useSay();
  const { locale } = useView();
  const when =
    at === null
      ? say('callSoon')
      : new Date(at).toLocaleString(locale, { dateStyle: 'medium', timeStyle: 'short' });
  return <p dir="auto">{say('callSaid', { phone, when })}</p>;
};

const Slip = (props: {
  conversation: Conversation;
  entry: VisitorEntry;
  model: Model;
  open: (file: FileMention) => void;
  write: (text: string) => void;
}) => {
  const { entry, model } = props;
  const { business } = useView();
  const say = useSay();
  const isMine = entry.by === 'visitor';
  const late = useLate(entry.card !== undefined || entry.shelf !== undefined);
  const state = isMine ? stateOf(entry, model.reached) : undefined;
  // A card that only leads on says nothing by itself.
  if (entry.card && !entry.text && !entry.card.link && entry.files.length === 0) return null;
  return (
    <li class={`slip ${entry.by}`} id={slipId(entry.seq)} tabIndex={-1}>
      <Top
        who={isMine ? say('you') : entry.name || business.name}
        face={entry.by === 'team' ? entry.face : undefined}
        at={entry.at - model.offsetMs}
        state={state}
        mark={entry.card && say('asked')}
      />
      {entry.callBack && <Called {...entry.callBack} />}
      {entry.card && late ? (
        <late.Guide {...props} />
      ) : (
        <>
          {entry.text && <Words text={entry.text} />}
          <Files conversation={props.conversation} files={entry.files} open={props.open} />
          {late && entry.shelf?.map((said) => <late.Shelf key={said.id} {...props} said={said} />)}
        </>
      )}
    </li>
  );
};

const textOf = (load: Load): string => {
  if (load.do === 'details') return detailsText(load);
  return load.do === 'say' ? load.text : load.question;
};

const detailsText = (load: Extract<Load, { do: 'details' }>): string =>
  [load.name, load.email, load.phone, ...Object.values(load.own ?? {})].filter(Boolean).join('\n');

const Unsent = ({
  conversation,
  parcel,
  model,
}: {
  conversation: Conversation;
  parcel: PanelParcel;
  model: Model;
}) => {
  const { load } = parcel;
  const say = useSay();
  // Details show where they were given; only when they were refused must that be said.
  if (load.do === 'details' && parcel.state !== 'failed') return null;
  const text = textOf(load);
  const files = load.do === 'say' ? load.files : [];
  const refusal = model.refusals[parcel.id];
  return (
    <li class={`slip visitor unsent ${parcel.state}`}>
      <Top who={say('you')} at={parcel.madeAt} state={parcel.state} />
      {load.do === 'say' && load.callBack && <Called {...load.callBack} />}
      {text && <Words text={text} />}
      {files.map((file) => (
        <p class="file" key={file.id}>
          <bdi>{file.name}</bdi>
        </p>
      ))}
      {parcel.state === 'failed' && (
        <div class="failed" role="alert">
          <p>{sayRefusal(say, refusal ?? { code: 'our-fault' })}</p>
          <button type="button" onClick={() => conversation.retry(parcel.id)}>
            {say('retry')}
          </button>
          <button type="button" onClick={() => conversation.drop(parcel.id)}>
            {say('drop')}
          </button>
        </div>
      )}
    </li>
  );
};

/** With what they were greeted, until they answer it. */
const Greeting = ({ model: { greeting } }: { model: Model }) =>
  greeting && (
    <li class="slip door">
      <p class="top">
        <b dir="auto">{greeting.name}</b>
      </p>
      <Words text={greeting.text} />
    </li>
  );

/** So long after more has come in above nothing is read out: all of that was said before. */
const STILL_MS = 500;

/** Whether what is added now is news: not what was said earlier, nor all of it at the beginning. */
const useIsNews = (first: number | undefined): boolean => {
  const [known, setKnown] = useState<number | undefined>();
  useEffect(() => {
    const timer = setTimeout(setKnown, STILL_MS, first);
    return () => clearTimeout(timer);
  }, [first]);
  return known === first;
};

/** What was said, oldest first, and what still waits to be sent. */
export const Roll = (props: {
  conversation: Conversation;
  model: Model;
  open: (file: FileMention) => void;
  /** Puts words where the visitor writes. */
  write: (text: string) => void;
}) => {
  const { conversation, model } = props;
  const say = useSay();
  const { locale } = useView();
  const now = Date.now();
  let day = '';
  const { greeting } = model;
  const greetedAt = greeting
    ? model.entries.findLastIndex(({ seq }) => seq <= greeting.after)
    : null;
  const isGreetedAt = (at: number): boolean => at === greetedAt;
  const isNews = useIsNews(model.entries[0]?.seq);
  return (
    <div role="log" aria-relevant="additions" aria-live={isNews ? 'polite' : 'off'}>
      <ol class="roll" aria-label={say('roll')}>
        {model.hasOlder && (
          <li>
            <button type="button" class="plain" onClick={() => void conversation.showOlder()}>
              {say('earlier')}
            </button>
          </li>
        )}
        {isGreetedAt(-1) && <Greeting model={model} />}
        {model.entries.map((entry, at) => {
          const entryDay = dayOf(entry.at - model.offsetMs, now, say, locale);
          const isNewDay = entryDay !== day;
          day = entryDay;
          return (
            <Fragment key={entry.seq}>
              {isNewDay && <li class="day">{entryDay}</li>}
              <Slip {...props} entry={entry} />
              {isGreetedAt(at) && <Greeting model={model} />}
            </Fragment>
          );
        })}
        {model.queue.map((parcel) => (
          <Unsent key={parcel.id} conversation={conversation} parcel={parcel} model={model} />
        ))}
      </ol>
    </div>
  );
};
