/** What the closed plate says; apart from the panel's words, because the loader carries them to every page. */
export const plateWords = {
  lit: 'Answering now',
  backSoon: (time: string) => `Back at ${time}`,
  dark: 'Leave a note',
  open: (business: string, state: string) => `Write to ${business}. ${state}`,
  close: 'Close the conversation',
  unread: (count: number) => (count === 1 ? '1 new message' : `${count} new messages`),
  frame: (business: string) => `Conversation with ${business}`,
};
