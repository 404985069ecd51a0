import { BEFORE_ID } from './kept';

const beforeNow = (): HTMLElement | null =>
  typeof document === 'undefined' ? null : document.getElementById(BEFORE_ID);

let tapped: string | null = null;
let isSubmitted = false;

/** Notes whom somebody taps in what stands there before the app: it is opened as soon as that is possible. */
const noteTap = (event: Event): void => {
  const row = (event.target as Element).closest<HTMLElement>('[data-talk]');
  if (!row) return;
  tapped = row.dataset.talk ?? null;
  row.classList.add('tapped');
};

/** What is sent from there now is done by the app, which will be there in a moment. */
const noteSubmit = (event: Event): void => {
  event.preventDefault();
  isSubmitted = true;
};

// From the first moment on that any of the app runs.
beforeNow()?.addEventListener('click', noteTap);
beforeNow()?.addEventListener('submit', noteSubmit);

/**
 * The app itself stands there now: what was shown before it goes, once the app has been drawn below it. Gives whom
 * somebody tapped meanwhile; null: nobody.
 */
export const dropBefore = (): string | null => {
  const before = beforeNow();
  const wanted = tapped;
  tapped = null;
  if (!before) return wanted;
  before.removeAttribute('id');
  before.className = 'before-going';
  requestAnimationFrame(() => requestAnimationFrame(() => before.remove()));
  return wanted;
};

/**
 * What was typed into fields that stood there before the app, by their names, which of them has the focus, and
 * whether it was sent off already.
 */
export const typedBefore = () => {
  const fields = [...(beforeNow()?.querySelectorAll('input') ?? [])];
  return {
    typed: Object.fromEntries(fields.map(({ name, value }) => [name, value])) as Record<
      string,
      string | undefined
    >,
    isSubmitted,
    focused: fields.find((field) => field === document.activeElement)?.name ?? null,
  };
};
