import { remember } from './remember';
import { type HelloPorch, type Person, stand } from './stand';
import { trialKey } from './trial-key';

/**
 * The one line that a business pastes into its website. It asks how its door is set, draws the
 * plate, and does nothing else until the plate is opened. Whatever fails, the page never notices.
 */
declare global {
  interface Window {
    HelloPorch?: HelloPorch;
  }
}

const script = document.currentScript as HTMLScriptElement | null;

/** The door on this page; null when our server is down, or the page is not on the door's list. */
const standUp = async (origin: string, door: string): Promise<HelloPorch | null> => {
  const language = /^[a-z]*/i.exec(document.documentElement.lang || navigator.language)?.[0];
  try {
    const asked = `${origin}/door/${door}/configuration.js?language=${language}`;
    const configuration = (await import(asked)).default;
    const loadMore = () => import(origin + configuration.more);
    const isTrial = location.hash.includes(trialKey) || remember('sessionStorage', trialKey);
    const tried = isTrial ? await (await loadMore()).tryOn(origin, door, language) : null;
    return stand(origin, tried?.configuration ?? configuration, loadMore, tried ?? undefined);
  } catch {
    return null;
  }
};

const start = (): void => {
  const door = script?.dataset.door;
  if (!script || !door || window.HelloPorch) return;
  const standing = standUp(new URL(script.src).origin, door);
  // What the page asks before the door stands is done when it does.
  const ask =
    (what: keyof HelloPorch) =>
    (person: Person = {}) =>
      standing.then((porch) => porch?.[what](person));
  window.HelloPorch = { open: ask('open'), close: ask('close'), visitorIs: ask('visitorIs') };
};

if (document.body) start();
else addEventListener('DOMContentLoaded', start);
