import { keep, kept } from '@porch/client/keeping';
import type { KnownDetails } from '@porch/contract/visitor';
import type { ShownField, ShownGuestBook } from '@porch/core/dress';
import { DRESS_LIMITS } from '@porch/core/dress/limits';
import {
  EMAIL_LONGEST,
  looksLikeEmail,
  looksLikePhone,
  NAME_LONGEST,
  PHONE_LONGEST,
} from '@porch/core/text';
import { useState } from 'preact/hooks';
import type { Conversation } from './conversation';
import { type Model, shownDetails } from './model';
import type { Given } from './parcels';
import { type Say, sayRefusal, useSay } from './view';
import type { State } from './welcome';

const TICKED = 'yes';

const longest = { name: NAME_LONGEST, email: EMAIL_LONGEST, phone: PHONE_LONGEST };
const inputTypes = { name: 'text', email: 'email', phone: 'tel' } as const;
const completes = { name: 'name', email: 'email', phone: 'tel' } as const;

const isKnownField = (kind: ShownField['kind']): kind is 'name' | 'email' | 'phone' =>
  kind === 'name' || kind === 'email' || kind === 'phone';

const answerTo = (details: KnownDetails, { id, kind }: ShownField): string =>
  isKnownField(kind) ? details[kind] : (details.own[id] ?? '');

/** Whether what a page of the guest book asks for is known: all that is needed, and anything at all. */
export const isAnswered = ({ fields }: ShownGuestBook, details: KnownDetails, isNote: boolean) => {
  const reach = fields.filter(({ kind }) => kind === 'email' || kind === 'phone');
  const wanted = isNote && reach.length > 0 ? reach : fields;
  return (
    fields.every((field) => !field.isRequired || answerTo(details, field) !== '') &&
    wanted.some((field) => answerTo(details, field) !== '')
  );
};

const Control = (props: { field: ShownField; value: string; problem: string }) => {
  const { field, value, problem } = props;
  const say = useSay();
  const id = `guest-${field.id}`;
  const common = {
    id,
    name: field.id,
    'aria-invalid': problem !== '',
    'aria-required': field.isRequired,
    'aria-describedby': problem ? `problem-${field.id}` : undefined,
  };
  if (field.kind === 'choice') {
    return (
      <select {...common}>
        <option value="">{say('choose')}</option>
        {field.choices.map((choice) => (
          <option key={choice.value} value={choice.value} selected={choice.value === value}>
            {choice.text}
          </option>
        ))}
      </select>
    );
  }
  if (field.kind === 'tick') {
    return <input {...common} type="checkbox" value={TICKED} defaultChecked={value === TICKED} />;
  }
  const known = isKnownField(field.kind) ? field.kind : null;
  return (
    <input
      {...common}
      type={known ? inputTypes[known] : 'text'}
      autocomplete={known ? completes[known] : 'off'}
      dir={known === 'name' || !known ? 'auto' : 'ltr'}
      defaultValue={value}
      maxLength={known ? longest[known] : DRESS_LIMITS.textLongest}
    />
  );
};

/** A field with its label, and what is wrong with it. */
export const Field = (props: { field: ShownField; value: string; problem: string }) => {
  const say = useSay();
  const { field, problem } = props;
  return (
    <div class={field.kind === 'tick' ? 'field tick' : 'field'}>
      <label for={`guest-${field.id}`}>
        <span dir="auto">{field.label}</span>
        {field.isRequired && <small> {say('needed')}</small>}
      </label>
      <Control {...props} />
      {problem && (
        <span class="problem" id={`problem-${field.id}`} role="alert">
          {problem}
        </span>
      )}
    </div>
  );
};

/** What is wrong with what was typed, by field; nothing when all is well as far as can be told here. */
export const problemsIn = (
  fields: readonly ShownField[],
  typed: ReadonlyMap<string, string>,
  isNote: boolean,
  say: Say,
): Record<string, string> => {
  const found: Record<string, string> = {};
  for (const { id, kind, isRequired } of fields) {
    const text = typed.get(id) ?? '';
    if (isRequired && !text) found[id] = say('missing');
    if (kind === 'email' && text && !looksLikeEmail(text)) found[id] = say('refused.email');
    if (kind === 'phone' && text && !looksLikePhone(text)) found[id] = say('refused.phone');
  }
  const reach = fields.filter(({ kind }) => kind === 'email' || kind === 'phone');
  const [first] = reach;
  if (isNote && first && !found[first.id] && reach.every(({ id }) => !typed.get(id))) {
    found[first.id] = say('reach');
  }
  return found;
};

/** What was typed as it is given. */
export const toGiven = (
  fields: readonly ShownField[],
  typed: ReadonlyMap<string, string>,
): Given => {
  const own: Record<string, string> = {};
  const given: Given = {};
  for (const { id, kind } of fields) {
    if (isKnownField(kind)) given[kind] = typed.get(id) ?? '';
    else own[id] = typed.get(id) ?? '';
  }
  return Object.keys(own).length > 0 ? { ...given, own } : given;
};

/** How a visitor whose details are known can be reached, or thanks for what they gave. */
export const knownWords = ({ mails }: Model, details: KnownDetails, say: Say): string => {
  // Where no mail goes out an email is noted, and nothing is promised of it.
  const how = (mails && details.email) || details.phone;
  return how ? say('reachable', { how }) : say('thanks');
};

/** Whether a visitor would rather not say who they are; asked apart while nobody is in. */
export const useSkipped = (door: string, isNote: boolean) => {
  const key = `porch:skipped:${door}:${isNote ? 'note' : 'lit'}`;
  const [skipped, setSkipped] = useState<string | null>(null);
  return {
    isSkipped: skipped === key || kept(key) === 'yes',
    skip: (): void => {
      keep(key, 'yes');
      setSkipped(key);
    },
  };
};

/** Asks who writes, as the owner wants it asked; what is not required can be skipped. */
export const GuestForm = (props: {
  conversation: Conversation;
  model: Model;
  page: ShownGuestBook;
  state: State;
  /** What was given is taken. */
  done: () => void;
  skip: () => void;
}) => {
  const { conversation, state, page, done, skip } = props;
  const say = useSay();
  const details = shownDetails(props.model);
  const isNote = state !== 'lit';
  const isNeeded = page.fields.some(({ isRequired }) => isRequired);
  const [problems, setProblems] = useState<Record<string, string>>({});

  const save = async (form: HTMLFormElement): Promise<void> => {
    const data = new FormData(form);
    const typed = new Map(
      page.fields.map(({ id }) => [id, String(data.get(id) ?? '').trim()] as const),
    );
    const found = problemsIn(page.fields, typed, isNote, say);
    setProblems(found);
    if (Object.keys(found).length > 0) return;
    if ([...typed.values()].every((text) => !text)) return skip();
    const refusal = await conversation.giveDetails(toGiven(page.fields, typed));
    if (!refusal) return done();
    const field = page.fields.find(
      ({ id, kind }) => id === refusal.field || kind === refusal.field,
    );
    setProblems({ [field?.id ?? page.fields[0]?.id ?? '']: sayRefusal(say, refusal) });
  };

  return (
    <form
      class="guest"
      noValidate
      aria-labelledby="guest-title"
      onSubmit={(event) => {
        event.preventDefault();
        void save(event.currentTarget);
      }}
    >
      <h2 id="guest-title" dir="auto">
        {say(`guestTitle.${state}`)}
      </h2>
      {isNote || props.model.mails || isNeeded ? (
        <p dir="auto">{say(isNeeded && !isNote ? 'guestNeeded' : `guestIntro.${state}`)}</p>
      ) : null}
      {page.fields.map((field) => (
        <Field
          key={field.id}
          field={field}
          value={answerTo(details, field)}
          problem={problems[field.id] ?? ''}
        />
      ))}
      <div class="row">
        <button type="submit" class="send">
          {say('save')}
        </button>
        {!isNeeded && (
          <button type="button" class="plain" onClick={skip}>
            {say('skip')}
          </button>
        )}
      </div>
    </form>
  );
};

/** The guest book before anything was said: it has the room. */
export const GuestBook = (props: {
  conversation: Conversation;
  model: Model;
  door: string;
  page: ShownGuestBook;
  state: State;
}) => {
  const { model, page } = props;
  const say = useSay();
  const isNote = props.state !== 'lit';
  const details = shownDetails(model);
  const { isSkipped, skip } = useSkipped(props.door, isNote);
  const [isChanging, setChanging] = useState(false);
  const close = (): void => setChanging(false);

  if (isAnswered(page, details, isNote) && !isChanging) {
    return (
      <p class="known">
        {knownWords(model, details, say)}{' '}
        <button type="button" class="plain" onClick={() => setChanging(true)}>
          {say('change')}
        </button>
      </p>
    );
  }
  const mustAnswer = page.fields.some(({ isRequired }) => isRequired);
  if (isSkipped && !mustAnswer && !isChanging) return null;
  return (
    <GuestForm
      {...props}
      done={close}
      skip={() => {
        skip();
        close();
      }}
    />
  );
};
