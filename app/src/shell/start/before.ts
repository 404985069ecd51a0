import { BEFORE_ID, BEFORE_STYLE_ID } from './kept';

const beforeNow = (): HTMLElement | null =>
  typeof document === 'undefined' ? null : document.getElementById(BEFORE_ID);

let isSubmitted = false;

/** What is sent from there now is done by the app, which will be there in a moment. */
const noteSubmit = (event: Event): void => {
  event.preventDefault();
  isSubmitted = true;
};

// From the first moment on that any of the app runs.
beforeNow()?.addEventListener('submit', noteSubmit);

/**
 * The app itself stands there now: what was shown before it goes in the same moment. Gives whom
 * somebody tapped meanwhile; null: nobody.
 */
export const dropBefore = (): string | null => {
  const before = beforeNow();
  if (!before) return null;
  before.remove();
  // It has names in common with the app's own sheet, and would go before it on every screen.
  document.getElementById(BEFORE_STYLE_ID)?.remove();
  // Noted by the page's first script: see app/start/first.ts.
  return before.dataset.tapped ?? null;
};

/**
 * What was typed into fields that stood there before the app, by their names, which of them has the focus, and
 * whether it was sent off already.
 */
export const typedBefore = () => {
  const before = beforeNow();
  const fields = [...(before?.querySelectorAll('input') ?? [])];
  // Whoever holds the button down in this very moment lets go of one that is there no more.
  const isPressed = Boolean(before?.querySelector('form button:active'));
  const wasSubmitted = isSubmitted || isPressed;
  // It is sent once, and not by whatever sign-in comes later on this page.
  isSubmitted = false;
  return {
    typed: Object.fromEntries(fields.map(({ name, value }) => [name, value])) as Record<
      string,
      string | undefined
    >,
    isSubmitted: wasSubmitted,
    focused: fields.find((field) => field === document.activeElement)?.name ?? null,
  };
};
