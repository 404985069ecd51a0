import type { DoorConfiguration } from '@porch/contract/visitor';

/** The frame in which the panel is, hidden; it begins to load. `draft`: where one is tried, if it is one. */
export const frameIn = (
  root: ShadowRoot,
  origin: string,
  configuration: DoorConfiguration,
  draft?: 'trial' | 'preview',
): HTMLIFrameElement =>
  root.appendChild(
    Object.assign(document.createElement('iframe'), {
      hidden: true,
      title: configuration.texts.frame,
      src: `${origin}/door/${configuration.door}/panel?language=${configuration.language}${draft ? `&draft=${draft}` : ''}`,
    }),
  );
