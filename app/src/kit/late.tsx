import { type ComponentType, lazy, type ReactNode, Suspense } from 'react';

/** A screen that is loaded once somebody goes there; until then its shape. */
export const late = <Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  shape: () => ReactNode,
): ComponentType<Props> => {
  const Screen = lazy(async () => ({ default: await load() }));
  const Late = (props: Props): ReactNode => (
    <Suspense fallback={shape()}>
      <Screen {...(props as Props & object)} />
    </Suspense>
  );
  return Late;
};
