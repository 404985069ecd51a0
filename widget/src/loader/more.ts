import type { TrialData } from '@porch/contract/visitor';
import type { FromFrame, SaidPerson, ToFrame } from '../bridge';
import { frameIn } from './frame';
import frameCss from './frame.css';
import type { Greeter } from './greeter';
import { createManners } from './manners';
import { remember } from './remember';
import type { Draft, More } from './stand';
import { talkedKey } from './talked-key';

/**
 * The loader's second part, which comes when somebody comes near the plate, where the door does something by
 * itself, or where somebody has talked before: the panel in its frame.
 */
export const enter: More['enter'] = (stood, root, origin, configuration, draft) => {
  const place = root.querySelector('.door') as HTMLElement;
  const plate = root.querySelector('.plate') as HTMLElement;
  const host = root.host as HTMLElement;
  const { door, rules, look } = configuration;
  const isPreview = draft?.place === 'preview';
  let frame: HTMLIFrameElement | null = null;
  let isReady = false;
  let takesFocus = false;
  let toldUrl = '';
  let unreadBefore = 0;
  let greeter: Greeter | null = null;
  let isGone = false;

  const sheet = new CSSStyleSheet();
  const [width, height] = look.panel;
  sheet.replaceSync(`${frameCss}:host{--w:${width}px;--h:${height}px}`);
  root.adoptedStyleSheets.push(sheet);
  // A glance stands over the plate, however tall that is: it grows with its words, and is low on a small screen.
  new ResizeObserver(() => host.style.setProperty('--p', `${place.offsetHeight + 8}px`)).observe(
    place,
  );

  const tell = (message: ToFrame): void => {
    if (isReady) frame?.contentWindow?.postMessage(message, origin);
  };

  const tellShown = (): void =>
    tell(stood.isOpen ? { porch: 'shown', takesFocus } : { porch: 'hidden' });

  const tellPage = (): void => {
    if (toldUrl === location.href || !isReady) return;
    toldUrl = location.href;
    tell({ porch: 'page', url: location.href, title: document.title });
  };

  const introduce = (): void => {
    const { name = '', email = '', signed = '', signature = '' } = stood.person ?? {};
    if (name || email || signed) {
      const person = [name, email, signed, signature].map(String) as SaidPerson;
      tell({ porch: 'person', person });
    }
  };

  const load = (): void => {
    if (frame) return;
    frame = stood.frame?.() ?? frameIn(root, origin, configuration, draft?.place);
    // It may have been pressed before this was here: what the frame has said by then was heard by nobody.
    frame.contentWindow?.postMessage({ porch: 'ready' } satisfies ToFrame, '*');
    stood.stop();
  };

  const show = (isOpen: boolean, movesFocus = true): void => {
    if (isOpen) load();
    // Whoever has gone on to something else by the time it closes is not fetched back.
    const isIn = isOpen || root.activeElement === frame;
    manners.unpeek();
    stood.isOpen = isOpen;
    if (frame) {
      frame.className = '';
      frame.hidden = !isOpen;
    }
    place.hidden = isOpen;
    // Whoever dresses the door goes on typing while it is drawn anew beside them.
    takesFocus = movesFocus && isIn && !isPreview;
    tellShown();
    if (takesFocus) (isOpen ? frame : plate)?.focus();
    stood.redraw();
  };

  const greets = (): void => {
    if (configuration.greetings.length === 0) return;
    import('./greeter').then(
      ({ createGreeter }) => {
        if (isGone) return;
        greeter = createGreeter({
          stood,
          root,
          origin,
          configuration,
          place: draft?.place,
          talkedKey: talkedKey(door),
          remember,
          show,
          tell,
        });
      },
      () => {},
    );
  };

  const manners = createManners(
    { stood, host, place, plate, configuration, isPreview },
    (movesFocus) => show(true, movesFocus),
  );

  /** The panel's own frame, small beside the plate: what was said never reaches the page around it. */
  const glance = (isGlancing: boolean): void => {
    if (!frame) return;
    frame.className = isGlancing ? 'glance' : '';
    frame.hidden = !isGlancing;
    tell({ porch: isGlancing ? 'glance' : 'hidden' });
  };

  /** So many answers have not been read. */
  const answered = (count: number): void => {
    const isNew = count > unreadBefore;
    unreadBefore = count;
    stood.unread = count;
    stood.redraw();
    if (stood.isOpen || host.hidden || rules.onAnswer === 'count') return;
    // On a phone an open panel covers everything: a glance is enough there.
    const isSmall = matchMedia('(max-width:520px)').matches;
    if (isNew && rules.onAnswer === 'open' && !isSmall) show(true, false);
    else if (isNew || count === 0) glance(isNew);
  };

  const hear = (message: FromFrame): void => {
    switch (message.porch) {
      case 'ready':
        isReady = true;
        toldUrl = '';
        if (draft) tell({ porch: 'view', view: draft.view });
        if (isPreview) tell({ porch: 'lamp', ...stood.lamp() });
        tellPage();
        introduce();
        greeter?.tell();
        tellShown();
        break;
      case 'open':
      case 'close':
        show(message.porch === 'open');
        break;
      case 'talked':
        remember('localStorage', talkedKey(door), 'talked');
        break;
      case 'unread':
        answered(message.count);
        break;
      case 'lamp':
        if (!isPreview) stood.setLamp(message);
        break;
    }
  };

  const listen = (event: MessageEvent): void => {
    if (event.origin !== origin || event.source !== frame?.contentWindow) return;
    if (event.data?.porch) hear(event.data);
  };
  addEventListener('message', listen);
  manners.behave();
  greets();

  return {
    load,
    show,
    introduce,
    went: (isOtherPath) => {
      tellPage();
      if (isOtherPath) {
        manners.behave();
        greeter?.consider();
      }
    },
    remove: () => {
      removeEventListener('message', listen);
      manners.stop();
      isGone = true;
      greeter?.stop();
    },
  };
};

/** The owner's draft on their own website: what that takes comes for them alone. */
export const tryOn = async (
  origin: string,
  door: string,
  language: string | undefined,
): Promise<(TrialData & Draft) | null> =>
  (await import('./trial')).tryOn(origin, door, language, remember);
