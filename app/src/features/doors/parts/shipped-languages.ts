/** The languages that ship; kept in step with the texts by a test. */
export const shippedCodes = ['en', 'es', 'fr', 'de', 'it', 'pt', 'nl', 'pl'] as const;
