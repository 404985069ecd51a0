import type { FromPreview, ToPreview } from '../bridge';
import * as more from '../loader/more';
import { type Standing, stand } from '../loader/stand';

/**
 * The dressing room's imaginary website: draws the real plate, with the real panel in its frame, from
 * the draft that the app around it tells. Believes only the app, which is of the same origin.
 */
let standing: Standing | null = null;

addEventListener('message', (event) => {
  if (event.origin !== location.origin || event.source !== parent) return;
  const message = event.data as ToPreview;
  if (message?.porch !== 'draft') return;
  standing?.remove();
  standing = stand(location.origin, message.configuration, async () => more, {
    view: message.view,
    place: 'preview',
  });
  if (message.isOpen) standing.open();
  // Somebody comes near: what the door says by itself is seen at once.
  else if (message.configuration.greetings.length > 0) {
    const plate = document.querySelector('hello-porch')?.shadowRoot?.querySelector('.plate');
    plate?.dispatchEvent(new Event('pointerenter'));
  }
});
parent.postMessage({ porch: 'preview-ready' } satisfies FromPreview, location.origin);
