import { useCallback } from 'react';
import type { View } from 'react-native';

/** A ref for what stands inside a modal; it gives the dialog around it its name, as the modal takes none. */
export const useDialogName = (name: string) =>
  useCallback(
    (inside: View | null): void => {
      const element = inside as unknown as HTMLElement | null;
      element?.closest('[aria-modal]')?.setAttribute('aria-label', name);
    },
    [name],
  );
