import { wording } from '../../../kit/wording';
import { networkEn } from './network-en';

export const doorWords = wording({ en: networkEn });
