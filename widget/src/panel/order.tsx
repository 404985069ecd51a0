import type { ShownField } from '@porch/core/dress';
import { useEffect, useRef, useState } from 'preact/hooks';
import type { Conversation } from './conversation';
import { Field } from './guest-book';
import { sayRefusal, useSay } from './view';

type Problem = { at: 'number' | 'contact'; text: string } | null;

/** Where somebody's order is: its number, and the mail address or phone number of whoever ordered. */
export const OrderForm = (props: {
  conversation: Conversation;
  /** What they have said of themselves already. */
  contact: string;
  /** The visitor must agree first. */
  isConsentMissing: boolean;
  newestSeq: number;
  /** It was found, and stands on the roll or comes there: after what was the newest when it was asked for. */
  found: (after: number) => void;
}) => {
  const { conversation } = props;
  const say = useSay();
  const [isOpen, setOpen] = useState(false);
  const [isAsking, setAsking] = useState(false);
  const [problem, setProblem] = useState<Problem>(null);
  const form = useRef<HTMLFormElement>(null);
  useEffect(() => {
    if (!isOpen) return;
    form.current?.querySelector('input')?.focus();
    form.current?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);

  const find = async (): Promise<void> => {
    if (!form.current || isAsking) return;
    const data = new FormData(form.current);
    const [number, contact] = ['number', 'contact'].map((name) =>
      String(data.get(name) ?? '').trim(),
    ) as [string, string];
    if (props.isConsentMissing) {
      setProblem({ at: 'number', text: say('consentFirst') });
      document.getElementById('consent')?.focus();
      return;
    }
    if (!number) return setProblem({ at: 'number', text: say('missing') });
    if (!contact) return setProblem({ at: 'contact', text: say('missing') });
    setAsking(true);
    const after = props.newestSeq;
    const refusal = await conversation.order(number, contact);
    setAsking(false);
    const at = refusal?.code === 'text-empty' ? 'number' : 'contact';
    setProblem(refusal && { at, text: sayRefusal(say, refusal) });
    if (refusal) return;
    setOpen(false);
    props.found(after);
  };

  const field = (id: 'number' | 'contact', label: string, value = '') => {
    const shown: ShownField = { id, kind: 'text', label, choices: [], isRequired: true };
    const text = problem?.at === id ? problem.text : '';
    return <Field field={shown} value={value} problem={text} />;
  };

  return (
    <>
      <button type="button" class="plain" aria-expanded={isOpen} onClick={() => setOpen(!isOpen)}>
        {say('order')}
      </button>
      {isOpen && (
        <form
          ref={form}
          class="guest"
          noValidate
          aria-busy={isAsking}
          onSubmit={(event) => {
            event.preventDefault();
            void find();
          }}
        >
          {field('number', say('orderNumber'))}
          {field('contact', say('orderContact'), props.contact)}
          <div class="row">
            <button type="submit" class="send" aria-disabled={isAsking}>
              {say('orderFind')}
            </button>
          </div>
        </form>
      )}
    </>
  );
};
