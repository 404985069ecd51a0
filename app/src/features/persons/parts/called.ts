import { type Call, callInWords } from '@porch/core/calling';
import { words } from '../words';

/** What somebody is called, in this device's language. */
export const calledInWords = (call: Call): string => callInWords(call, words().called);
