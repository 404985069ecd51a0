/** Which build this page is of; '' where it does not say. */
export const buildName = (): string =>
  typeof document === 'undefined'
    ? ''
    : (document.querySelector('meta[name="build"]')?.getAttribute('content') ?? '');
