/** By what a page knows whoever has talked at a door. */
export const talkedKey = (door: string): string => `hello-porch:${door}`;
