import { wording } from '../wording';
import { en } from './en';

export const kitWords = wording({ en });
