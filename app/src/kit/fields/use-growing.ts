import { type RefObject, useCallback, useLayoutEffect } from 'react';
import type { TextInput } from 'react-native';

/**
 * Keeps a field as tall as its text, up to `tallest` pixels. The height is set on the element itself and
 * never kept as state: what a field reports of its content depends on its height, so that the two would
 * drive one another. Give what it returns to the field's `onLayout`: a narrower field has more lines.
 */
export const useGrowing = (field: RefObject<TextInput | null>, tallest: number): (() => void) => {
  const grow = useCallback((): void => {
    const area = field.current as unknown as HTMLTextAreaElement | null;
    if (!area) return;
    const borders = area.offsetHeight - area.clientHeight;
    area.style.height = '0';
    area.style.height = `${Math.min(tallest, area.scrollHeight + borders)}px`;
  }, [field, tallest]);
  useLayoutEffect(grow);
  return grow;
};
