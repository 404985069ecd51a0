import type { Call } from '@porch/core/calling';
import { words } from '../words';

/** What somebody is called, in words. */
export const calledInWords = (call: Call): string => {
  switch (call.by) {
    case 'page':
    case 'city':
      return words().called[call.by](call.what);
    case 'nothing':
      return words().called.nothing;
    default:
      return call.what;
  }
};
