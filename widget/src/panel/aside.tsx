import type { ShownGuestBook } from '@porch/core/dress';
import { useEffect, useRef } from 'preact/hooks';
import type { Conversation, FoundCard } from './conversation';
import { GuestForm, isAnswered, knownWords, useSkipped } from './guest-book';
import { type Model, shownDetails } from './model';
import { useLate } from './use-late';
import { useSay, useView } from './view';
import { About, type State } from './welcome';

/** What of it is open; null: it is shut. */
export type AsideOpen = 'guest' | 'more' | null;

interface WaysProps {
  conversation: Conversation;
  model: Model;
  /** The visitor must agree first. */
  isConsentMissing: boolean;
  /** The newest of what was said, 0 before anything was. */
  newestSeq: number;
  /** An order was found: it comes after that of the roll. */
  found: (after: number) => void;
  /** A call was asked for. */
  asked: () => void;
}

interface Props extends WaysProps {
  state: State;
  tap: (card: FoundCard) => void;
}

/** Everything else that somebody may want here than to write. */
export const Ways = (props: WaysProps & { isOrderShut?: boolean }) => {
  const { conversation, model, isConsentMissing } = props;
  const view = useView();
  const { email, phone } = shownDetails(model);
  const OrderForm = useLate(view.orders)?.OrderForm;
  const OtherWays = useLate(view.business.ways.length > 0)?.OtherWays;
  const CallBackForm = useLate(view.callBack)?.CallBackForm;
  return (
    <>
      {OrderForm && !props.isOrderShut && (
        <OrderForm
          conversation={conversation}
          contact={email || phone}
          isConsentMissing={isConsentMissing}
          newestSeq={props.newestSeq}
          found={props.found}
        />
      )}
      {!isConsentMissing && OtherWays && <OtherWays conversation={conversation} />}
      {!isConsentMissing && CallBackForm && (
        <CallBackForm conversation={conversation} phone={phone} asked={props.asked} />
      )}
    </>
  );
};

const More = (props: Props) => {
  const AskedAll = useLate(useView().asked.isAny)?.AskedAll;
  return (
    <>
      {AskedAll && <AskedAll {...props} />}
      <Ways {...props} />
      <About state={props.state} />
    </>
  );
};

/** Once something was said the conversation has the room: all else is behind one line. */
export const Aside = (
  props: Props & {
    door: string;
    /** Null: nobody is asked who they are. */
    page: ShownGuestBook | null;
    open: AsideOpen;
    /** Somebody opened it: they go on in it. */
    takesFocus: boolean;
    setOpen: (open: AsideOpen) => void;
  },
) => {
  const { model, state, page, open, takesFocus, setOpen } = props;
  const view = useView();
  const say = useSay();
  const isNote = state !== 'lit';
  const details = shownDetails(model);
  const { isSkipped, skip } = useSkipped(props.door, isNote);
  const bar = useRef<HTMLDivElement>(null);
  const sheet = useRef<HTMLElement>(null);
  const isKnown = page !== null && isAnswered(page, details, isNote);
  const { asked, orders, callBack, business, links } = view;
  const hasMore =
    asked.isAny ||
    orders ||
    callBack ||
    business.ways.length + business.people.length + links.length > 0 ||
    (isNote && business.address !== '');

  const wasOpen = useRef<AsideOpen>(null);
  useEffect(() => {
    if (open === 'guest' && takesFocus)
      sheet.current?.querySelector<HTMLElement>('input, select')?.focus();
    // What was shut had the focus, or nothing has it now: whoever goes on by keyboard goes on at the line.
    if (open === null && wasOpen.current && document.activeElement === document.body) {
      bar.current?.querySelector('button')?.focus();
    }
    wasOpen.current = open;
  }, [open, takesFocus]);

  const toggle = (which: AsideOpen): void => setOpen(open === which ? null : which);
  const line =
    state === 'lit' && model.mails && page?.fields.some(({ kind }) => kind === 'email')
      ? say('guestLine')
      : say(`guestTitle.${state}`);
  const shut = (): void => setOpen(null);
  return (
    <>
      <div class="aside" ref={bar}>
        {isKnown && <p class="known">{knownWords(model, details, say)}</p>}
        {page && (isKnown || !isSkipped || open === 'guest') && (
          <button
            type="button"
            class={isKnown ? 'plain' : isNote ? 'line wanted' : 'line'}
            aria-expanded={open === 'guest'}
            onClick={() => toggle('guest')}
          >
            {isKnown ? say('change') : line}
          </button>
        )}
        {hasMore && (
          <button
            type="button"
            class="plain more"
            aria-expanded={open === 'more'}
            onClick={() => toggle('more')}
          >
            {say('more')}
          </button>
        )}
      </div>
      {open && (
        <section ref={sheet} class="sheet" aria-label={open === 'more' ? say('more') : undefined}>
          {open === 'guest' && page && (
            <GuestForm
              {...props}
              page={page}
              done={shut}
              skip={() => {
                skip();
                shut();
              }}
            />
          )}
          {open === 'more' && <More {...props} />}
        </section>
      )}
    </>
  );
};
