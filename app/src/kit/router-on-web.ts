/**
 * What the app uses of its router, and no more: the package's own list also names stacks, tabs, previews and what they
 * are drawn with, and all of that would be in the first load. Taken for `expo-router` when the app is built (metro.config.js).
 */
export { useGlobalSearchParams } from 'expo-router/build/hooks/useGlobalSearchParams';
export { useLocalSearchParams } from 'expo-router/build/hooks/useLocalSearchParams';
export { usePathname } from 'expo-router/build/hooks/usePathname';
export { useRouter } from 'expo-router/build/hooks/useRouter';
export { router } from 'expo-router/build/imperative-api';
export { Slot } from 'expo-router/build/views/Navigator';
