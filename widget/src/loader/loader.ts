import type { TrialData } from '@porch/contract/visitor';
import { type HelloPorch, remember, stand } from './stand';

/**
 * What stands on every page of a business's website: it asks once how the door is set, draws the
 * plate, and does nothing else until the plate is opened. Whatever fails, the page never notices.
 */
declare global {
  interface Window {
    HelloPorch?: HelloPorch;
  }
}

const script = document.currentScript as HTMLScriptElement | null;

/** The owner's way to see a draft on their own website; it comes in the fragment and stays for the visit. */
const trialToken = (): string | null => {
  const found = /hello-porch-trial=([\w-]+)/.exec(location.hash)?.[1];
  if (found) history.replaceState(history.state, '', location.pathname + location.search);
  return remember('sessionStorage', 'hello-porch-trial', found);
};

/** The door on this page; null when our server is down, or the page is not on the door's list. */
const standUp = async (origin: string, door: string): Promise<HelloPorch | null> => {
  const language = /^[a-z]*/i.exec(document.documentElement.lang || navigator.language)?.[0];
  const at = (what: string) => `${origin}/door/${door}/${what}?language=${language}`;
  try {
    const token = trialToken();
    if (token) {
      const headers = { authorization: `Bearer ${token}` };
      const response = await fetch(at('trial'), { headers }).catch(() => null);
      if (response?.ok) {
        const { configuration, view }: TrialData = await response.json();
        return stand(origin, configuration, { view, place: 'trial' });
      }
    }
    return stand(origin, (await import(at('configuration.js'))).default);
  } catch {
    return null;
  }
};

const start = (): void => {
  const door = script?.dataset.door;
  if (!script || !door || window.HelloPorch) return;
  const standing = standUp(new URL(script.src).origin, door);
  // What the page asks before the door stands is done when it does.
  window.HelloPorch = {
    open: () => standing.then((porch) => porch?.open()),
    close: () => standing.then((porch) => porch?.close()),
    visitorIs: (person) => standing.then((porch) => porch?.visitorIs(person)),
  };
};

if (document.body) start();
else addEventListener('DOMContentLoaded', start);
