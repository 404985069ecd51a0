import { speak } from '../src/kit/wording';

speak('en');
