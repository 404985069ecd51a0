/** Words that are told apart at a glance and by ear: 40 × 40 pairs. */
const list = (words: string): readonly string[] => words.split(' ');

export const firstWords = list(
  'amber bright brown calm copper crisp dusty early eager fair fresh gentle golden green happy heavy honest humble kind lively lucky mellow merry mild narrow old patient plain proud quiet quick red round rusty silver small soft steady tall warm',
);

export const secondWords = list(
  'acorn anchor apple barn basket beetle bell bench bridge broom bucket candle castle cherry clover comet cottage feather fern fiddle garden goose hammer harbour hedge kettle ladder lantern maple meadow mitten orchard otter pebble pillow robin saddle thimble violet wagon',
);
