import type { ErrorCode, Refusal } from '@porch/contract/errors';

const megabytes = (bytes: number): string => `${Math.floor(bytes / 1024 / 1024)} MB`;

const seconds = (ms: number): string => {
  const count = Math.ceil(ms / 1000);
  return count < 60 ? `${count} seconds` : `${Math.ceil(count / 60)} minutes`;
};

/** Every sentence that a visitor can read in the panel. */
export const words = {
  lit: 'Answering now',
  litMore: 'Somebody is here and reads what you write.',
  backSoon: (time: string) => `Back at ${time}`,
  backSoonMore: 'Leave a note now; it is the first thing we see.',
  dark: 'Nobody is in right now',
  darkMore: 'Leave a note; we answer when we are back.',
  close: 'Close',
  emptyLit: 'Write to us here. What you send stays in this place, on this device.',
  emptyNote: 'Leave your note here. It is kept, and you find our answer in the same place.',
  roll: 'Conversation',
  earlier: 'Show earlier messages',
  you: 'You',
  write: 'Your message',
  writeNote: 'Your note',
  send: 'Send',
  leaveNote: 'Leave note',
  addFile: 'Add a picture or file',
  dropFile: (name: string) => `Take ${name} out`,
  tooLong: (over: number) => `${over} characters too long`,
  tooMuch: (length: number) =>
    `That is ${length} characters; 4000 fit into a message. It was not taken in; what stood here is kept.`,
  typing: (name: string) => `${name} is typing`,
  waiting: 'Waiting to be sent',
  sending: 'Sending',
  sent: 'Sent',
  arrived: 'Arrived',
  read: 'Read',
  retry: 'Try again',
  drop: 'Delete',
  offline: 'No connection. What you write is kept here and sent when it is back.',
  download: (name: string, size: string) => `Download ${name}, ${size}`,
  openPicture: (name: string) => `Open picture ${name}`,
  closePicture: 'Close picture',
  loadingPicture: 'Loading picture',
  missingPicture: 'This picture could not be loaded.',
  today: 'Today',
  yesterday: 'Yesterday',
  guest: {
    titleLit: 'May we know who writes?',
    moreLit: 'Only if you like. With an email we can still reach you after you leave.',
    titleNote: 'How can we reach you?',
    moreNote: 'An email or a phone number, so that we can answer you.',
    name: 'Name',
    email: 'Email',
    phone: 'Phone',
    save: 'Save',
    skip: 'Skip',
    reach: 'Give an email or a phone number, or skip this.',
    saved: (how: string) => `Thank you. We can reach you at ${how}.`,
    savedName: 'Thank you.',
    change: 'Change',
  },
  refusal: (refusal: Refusal): string => {
    const sentence = refusals[refusal.code] ?? refusals['our-fault'];
    return typeof sentence === 'function' ? sentence(refusal) : (sentence ?? '');
  },
};

/** Sentences for the refusals that a panel can meet; any other is told as our fault. */
const refusals: Partial<Record<ErrorCode, string | ((refusal: Refusal) => string)>> = {
  'text-empty': 'There was nothing to send. Write something first.',
  'text-too-long': ({ limit }) =>
    `This is longer than ${limit ?? 4000} characters. It was not sent; shorten it and send again.`,
  'email-not-understood': 'This does not look like an email address. Check it and save again.',
  'phone-not-understood': 'This does not look like a phone number. Check it and save again.',
  'too-large': ({ limit }) =>
    `This file is larger than ${limit ? megabytes(limit) : '10 MB'}. It was not sent; choose a smaller one.`,
  'file-empty': 'This file is empty. It was not sent.',
  'picture-too-large':
    'This picture has more than 10000 pixels on a side, or 50 million altogether. It was not sent; choose a smaller one.',
  'picture-unreadable': 'This is called a picture but cannot be read as one. It was not sent.',
  'file-unknown': 'The file got lost on the way. Add it again.',
  'too-many': ({ waitMs }) =>
    `That was a lot at once. It is kept here; try again in ${seconds(waitMs ?? 60_000)}.`,
  'site-not-listed': 'This website is not allowed to show this conversation. Nothing was sent.',
  'token-unknown': 'This conversation cannot be opened from here. What you wrote is kept.',
  'not-found': 'This conversation is not there any more. What you wrote is kept.',
  'our-fault': 'Something went wrong on our side. What you wrote is kept; try again.',
};
