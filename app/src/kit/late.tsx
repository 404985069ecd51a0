import { type ComponentType, lazy, type ReactNode, Suspense, useState } from 'react';

/** A screen that comes late. */
export type LateScreen<Props extends object> = ComponentType<Props> & {
  /** Loads it ahead: whoever goes there then has it at once. Rejects where it cannot be loaded now. */
  prepare(): Promise<unknown>;
};

/** A screen that is loaded once somebody goes there, or ahead of that; until then its shape. */
export const late = <Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  shape: () => ReactNode,
): LateScreen<Props> => {
  let ready: ComponentType<Props> | null = null;
  const prepare = async (): Promise<ComponentType<Props>> => {
    ready = await load();
    return ready;
  };
  const Screen = lazy(async () => ({ default: await prepare() }));
  const Late = (props: Props): ReactNode => {
    // As it was when it was opened: what takes another's place loses what is typed in it.
    const [AtOnce] = useState(() => ready);
    if (AtOnce) return <AtOnce {...props} />;
    return (
      <Suspense fallback={shape()}>
        <Screen {...(props as Props & object)} />
      </Suspense>
    );
  };
  return Object.assign(Late, { prepare });
};
