/** By which an alert of a conversation is known on a device: a newer one takes its place. */
export const alertTag = (talk: string): string => `talk ${talk}`;
