/** Of this package no types are published; as much as is used by its own name. */
declare module 'react-native-web' {
  export const unstable_createElement: (
    tag: string,
    props: Record<string, unknown>,
  ) => import('react').ReactElement;
}

declare module 'react-native-web/dist/modules/AccessibilityUtil/propsToAccessibilityComponent' {
  const byRole: (props?: { role?: string; 'aria-level'?: number }) => string | undefined;
  export default byRole;
}

declare module 'react-native-web/dist/exports/*' {
  const part: unknown;
  export default part;
}
