export {
  clockMinute,
  clockText,
  HOURS_TEXT_LONGEST,
  type LeftOut,
  type LeftReason,
  leftReasons,
  type ReadHours,
  sameSpans,
  spanFrom,
  type WrittenHours,
} from './common';
export { fromJsonLd, readHours, toJsonLd } from './json-ld';
export { fromOsm } from './osm-read';
export { toOsm } from './osm-write';
