/** Where a file of a conversation is to be had. */
export const fileAddress = (id: string, size: 'whole' | 'thumbnail'): string =>
  `/api/files/${id}?size=${size}`;

/** Where a face or the business's picture is to be had; null without one. */
export const pictureUrl = (id: string | null): string | null => id && `/pictures/${id}`;
