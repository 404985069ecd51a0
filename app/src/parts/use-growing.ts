import { type RefObject, useCallback, useLayoutEffect, useRef } from 'react';
import type { TextInput } from 'react-native';

/**
 * Keeps a field as tall as its text, up to `tallest` pixels. The height is set on the element itself and
 * never kept as state: what a field reports of its content depends on its height, so that the two would
 * drive one another. Give what it returns to the field's `onLayout`.
 */
export const useGrowing = (
  field: RefObject<TextInput | null>,
  text: string,
  tallest: number,
): (() => void) => {
  const grow = useCallback((): void => {
    const area = field.current as unknown as HTMLTextAreaElement | null;
    if (!area) return;
    const borders = area.offsetHeight - area.clientHeight;
    area.style.height = '0';
    area.style.height = `${Math.min(tallest, area.scrollHeight + borders)}px`;
  }, [field, tallest]);
  const before = useRef<string | null>(null);
  useLayoutEffect(() => {
    if (before.current === text) return;
    before.current = text;
    grow();
  }, [text, grow]);
  return grow;
};
