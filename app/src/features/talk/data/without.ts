import type { Refusal } from '@porch/contract/errors';
import type { DeedParcel, Load } from '../../../shell/live/outbox';

type Said = Extract<Load, { do: 'say' }>;

/** An answer without the thing of the shelf for which it was refused; null where that is not why, or nothing is left. */
export const withoutGone = (
  { load }: Pick<DeedParcel, 'load'>,
  refusal: Refusal | undefined,
): Said | null => {
  if (load.do !== 'say' || !refusal || !['offer-over', 'shelf-gone'].includes(refusal.code)) {
    return null;
  }
  const shown = (load.shown ?? []).filter(({ id }) => id !== refusal.field);
  const isNothing = load.text.trim() === '' && load.files.length === 0 && shown.length === 0;
  return isNothing ? null : { ...load, shown };
};
