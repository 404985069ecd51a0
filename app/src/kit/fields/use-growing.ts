import { type RefObject, useCallback, useLayoutEffect } from 'react';
import type { TextInput } from 'react-native';

/** Whether the browser sizes a field by its text itself, within the layout it works out anyway. */
const sizesItself = (): boolean =>
  typeof CSS !== 'undefined' && CSS.supports('field-sizing', 'content');

/**
 * Keeps a field as tall as its text, up to `tallest` pixels. Where the browser does so itself it is asked to; measuring
 * lays the whole screen out once more. Elsewhere the height is set on the element itself and
 * never kept as state: what a field reports of its content depends on its height, so that the two would
 * drive one another. Give what it returns to the field's `onLayout`: a narrower field has more lines.
 */
export const useGrowing = (field: RefObject<TextInput | null>, tallest: number): (() => void) => {
  const grow = useCallback((): void => {
    const area = field.current as unknown as HTMLTextAreaElement | null;
    if (!area) return;
    if (sizesItself()) {
      area.style.setProperty('field-sizing', 'content');
      area.style.maxHeight = `${tallest}px`;
      return;
    }
    const borders = area.offsetHeight - area.clientHeight;
    area.style.height = '0';
    area.style.height = `${Math.min(tallest, area.scrollHeight + borders)}px`;
  }, [field, tallest]);
  useLayoutEffect(grow);
  return grow;
};
