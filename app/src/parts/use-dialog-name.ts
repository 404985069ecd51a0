import { useEffect, useRef } from 'react';
import type { View } from 'react-native';

/** Gives the dialog around a view its name: the modal itself takes none. */
export const useDialogName = (name: string) => {
  const inside = useRef<View>(null);
  useEffect(() => {
    const element = inside.current as unknown as HTMLElement | null;
    element?.closest('[role="dialog"]')?.setAttribute('aria-label', name);
  }, [name]);
  return inside;
};
