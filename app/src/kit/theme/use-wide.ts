import { useWindowDimensions } from 'react-native';
import { WIDE } from './sizes';

export const useWide = (): boolean => useWindowDimensions().width >= WIDE;
