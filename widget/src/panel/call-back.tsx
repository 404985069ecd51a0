import { MESSAGE_LONGEST, PHONE_LONGEST } from '@porch/core/text';
import { useEffect, useRef, useState } from 'preact/hooks';
import type { Conversation } from './conversation';
import { sayRefusal, useSay } from './view';

/** "2026-11-26T14:05", as the field for a time wants it. */
const localMinute = (at: number): string => {
  const date = new Date(at);
  return new Date(at - date.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

/** Asks to be called back: a number, when, and what it is about. What is typed stays until it is taken. */
export const CallBackForm = (props: {
  conversation: Conversation;
  phone: string;
  /** It was asked. */
  asked: () => void;
}) => {
  const { conversation, phone } = props;
  const say = useSay();
  const [isOpen, setOpen] = useState(false);
  const [problem, setProblem] = useState<{ at: 'phone' | 'when'; text: string } | null>(null);
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (!isOpen) return;
    first.current?.focus();
    first.current?.form?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);

  const send = async (form: HTMLFormElement): Promise<void> => {
    const data = new FormData(form);
    const typed = (name: string): string => String(data.get(name) ?? '').trim();
    const number = typed('phone');
    const at = typed('when') ? new Date(typed('when')).getTime() : null;
    if (!number) return setProblem({ at: 'phone', text: say('missing') });
    if (at !== null && !(at > Date.now())) return setProblem({ at: 'when', text: say('callPast') });
    const refusal = await conversation.giveDetails({ phone: number });
    if (refusal) return setProblem({ at: 'phone', text: sayRefusal(say, refusal) });
    conversation.say(typed('about'), [], { phone: number, at });
    setProblem(null);
    setOpen(false);
    props.asked();
  };

  const problemAt = (field: 'phone' | 'when') => problem?.at === field && problem.text;
  const described = (field: 'phone' | 'when') => ({
    'aria-invalid': Boolean(problemAt(field)),
    'aria-describedby': problemAt(field) ? `call-problem-${field}` : undefined,
  });
  const wrong = (field: 'phone' | 'when') =>
    problemAt(field) ? (
      <span class="problem" id={`call-problem-${field}`} role="alert">
        {problemAt(field)}
      </span>
    ) : null;

  return (
    <>
      <button type="button" class="plain" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {say('callAsk')}
      </button>
      {isOpen && (
        <form
          class="guest"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void send(event.currentTarget);
          }}
        >
          <div class="field">
            <label for="call-phone">{say('phone')}</label>
            <input
              id="call-phone"
              ref={first}
              name="phone"
              type="tel"
              autocomplete="tel"
              dir="ltr"
              defaultValue={phone}
              maxLength={PHONE_LONGEST}
              aria-required
              {...described('phone')}
            />
            {wrong('phone')}
          </div>
          <div class="field">
            <label for="call-when">
              {say('callWhen')} <small>{say('callWhenMore')}</small>
            </label>
            <input
              id="call-when"
              name="when"
              type="datetime-local"
              min={localMinute(Date.now())}
              {...described('when')}
            />
            {wrong('when')}
          </div>
          <div class="field">
            <label for="call-about">{say('callWhat')}</label>
            <textarea
              id="call-about"
              name="about"
              dir="auto"
              rows={2}
              maxLength={MESSAGE_LONGEST}
            />
          </div>
          <div class="row">
            <button type="submit" class="send">
              {say('callSend')}
            </button>
          </div>
        </form>
      )}
    </>
  );
};
