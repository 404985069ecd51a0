import type { DoorConfiguration } from '@porch/contract/visitor';
import type { Draft } from './stand';

/** The frame in which the panel is, hidden; it begins to load. */
export const frameIn = (
  root: ShadowRoot,
  origin: string,
  configuration: DoorConfiguration,
  draft?: Draft,
): HTMLIFrameElement =>
  root.appendChild(
    Object.assign(document.createElement('iframe'), {
      hidden: true,
      title: configuration.texts.frame,
      src: `${origin}/door/${configuration.door}/panel?language=${configuration.language}${draft ? `&draft=${draft.place}` : ''}`,
    }),
  );
