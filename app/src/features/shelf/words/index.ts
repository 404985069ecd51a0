import { wording } from '../../../kit/wording';
import { en } from './en';

export const words = wording({ en });
