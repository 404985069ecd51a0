import { looksLikeEmail, looksLikePhone } from '@porch/core/text';
import { useState } from 'preact/hooks';
import { words } from '../wording/panel';
import type { Conversation } from './conversation';
import { keep, kept } from './door';
import { type Model, shownDetails } from './model';

const text = words.guest;

const Field = (props: {
  name: 'name' | 'email' | 'phone';
  type: string;
  complete: string;
  value: string;
  problem: string;
}) => (
  <div class="field">
    <label for={`guest-${props.name}`}>{text[props.name]}</label>
    <input
      id={`guest-${props.name}`}
      name={props.name}
      type={props.type}
      autocomplete={props.complete}
      defaultValue={props.value}
      maxLength={props.name === 'phone' ? 32 : props.name === 'name' ? 80 : 254}
      aria-invalid={props.problem !== ''}
      aria-describedby={props.problem ? `problem-${props.name}` : undefined}
    />
    {props.problem && (
      <span class="problem" id={`problem-${props.name}`} role="alert">
        {props.problem}
      </span>
    )}
  </div>
);

/** Asks lightly who writes; while nobody is in, how to reach them. Skipping is always possible. */
export const GuestBook = (props: {
  conversation: Conversation;
  model: Model;
  door: string;
  isNote: boolean;
}) => {
  const { conversation, isNote } = props;
  const details = shownDetails(props.model);
  const skippedKey = `porch:skipped:${props.door}:${isNote ? 'note' : 'lit'}`;
  const isKnown = isNote
    ? Boolean(details.email || details.phone)
    : Boolean(details.name || details.email || details.phone);
  const [isOpen, setOpen] = useState(() => kept(skippedKey) !== 'yes');
  const [problems, setProblems] = useState<Record<string, string>>({});
  const [isChanging, setChanging] = useState(false);

  if (isKnown && !isChanging) {
    const how = details.email || details.phone;
    return (
      <p class="known">
        {how ? text.saved(how) : text.savedName}{' '}
        <button type="button" class="plain" onClick={() => setChanging(true)}>
          {text.change}
        </button>
      </p>
    );
  }
  if (!isOpen && !isChanging) return null;

  const save = (form: HTMLFormElement): void => {
    const data = new FormData(form);
    const typed = (name: string): string => String(data.get(name) ?? '').trim();
    const given = { name: typed('name'), email: typed('email'), phone: typed('phone') };
    const found: Record<string, string> = {};
    if (given.email && !looksLikeEmail(given.email)) {
      found.email = words.refusal({ code: 'email-not-understood' });
    }
    if (given.phone && !looksLikePhone(given.phone)) {
      found.phone = words.refusal({ code: 'phone-not-understood' });
    }
    if (isNote && !given.email && !given.phone) found.email = text.reach;
    setProblems(found);
    if (Object.keys(found).length > 0) return;
    setChanging(false);
    if (given.name || given.email || given.phone) conversation.giveDetails(given);
    else skip();
  };

  const skip = (): void => {
    keep(skippedKey, 'yes');
    setOpen(false);
    setChanging(false);
  };

  return (
    <form
      class="guest"
      noValidate
      aria-labelledby="guest-title"
      onSubmit={(event) => {
        event.preventDefault();
        save(event.currentTarget);
      }}
    >
      <h2 id="guest-title">{isNote ? text.titleNote : text.titleLit}</h2>
      <p>{isNote ? text.moreNote : text.moreLit}</p>
      <Field name="name" type="text" complete="name" value={details.name} problem="" />
      <Field
        name="email"
        type="email"
        complete="email"
        value={details.email}
        problem={problems.email ?? ''}
      />
      {isNote && (
        <Field
          name="phone"
          type="tel"
          complete="tel"
          value={details.phone}
          problem={problems.phone ?? ''}
        />
      )}
      <div class="row">
        <button type="submit" class="send">
          {text.save}
        </button>
        <button type="button" class="plain" onClick={skip}>
          {text.skip}
        </button>
      </div>
    </form>
  );
};
