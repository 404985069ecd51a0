import { wording } from '../../kit/wording';
import { en } from './en';

export const shellWords = wording({ en });
