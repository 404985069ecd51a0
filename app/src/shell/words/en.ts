import type { ErrorCode, Refusal } from '@porch/contract/errors';

const megabytes = (bytes: number): string => `${Math.floor(bytes / 1024 / 1024)} MB`;

const waitInWords = (ms: number): string => {
  const seconds = Math.ceil(ms / 1000);
  return seconds < 60 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
};

export const en = {
  name: 'Hello Porch',
  emoji: 'Choose an emoji',
  emojiMissing: 'Emoji cannot be had just now. Try again once there is signal.',
  forDeveloper: {
    title: 'For your developer',
    handOn: 'Send them this page: it opens without signing in.',
    copy: 'Copy the link',
    open: 'Open the page',
  },
  places: {
    line: 'The line',
    'follow-ups': 'Follow-ups',
    search: 'Search',
    house: 'House',
    nav: 'Places',
  },
  keys: {
    title: 'Keyboard',
    close: 'Close',
    rows: [
      ['j / k', 'next / previous in the line'],
      ['Enter', 'open'],
      ['r', 'write an answer'],
      ['Ctrl + Enter', 'send'],
      ['e', 'wrap up'],
      ['b', 'put by'],
      ['f', 'follow up'],
      ['u', 'take back'],
      ['x', 'select, then e, b or u for all of them'],
      ['a', 'select all of the group'],
      ['l', 'porch light'],
      ['/', 'search'],
      ['g', 'the line'],
      ['o', 'follow-ups'],
      ['h', 'house'],
      ['Esc', 'close, or back'],
      ['?', 'this sheet'],
    ] as const,
  },
  cannotWrite:
    'The house cannot write at the moment: its disk is full, or may only be read. What you do is kept on this device and goes out by itself.',
  offline: 'No connection. What you see is from before; what you send waits here.',
  notDone: (count: number) =>
    count === 1 ? 'One thing was not done.' : `${count} things were not done.`,
  newVersion: 'A new version is here. What you are writing stays.',
  takeNewVersion: 'Take it',
  look: 'Look',
  warning: 'Somebody tried to sign in as you.',
  undo: 'Undo',
  newMessage: (count: number, name: string) => `(${count}) ${name}`,
  notFound: {
    title: 'There is nothing at this address',
    more: 'The conversation or page you look for may have moved.',
    action: 'Go to the line',
  },
  /** Why something did not go out, or did not happen, where it is no refusal of our own. */
  whys: {
    gone: 'Nobody answered there.',
    refused: 'It was refused there.',
    'door-unknown': 'The door is not there any more.',
    'push-too-slow': 'Its push service took too long to answer. It is tried again.',
    'push-too-many': 'Its push service wants to be left alone for a while. It is tried again.',
    'push-broken': 'Its push service does not work at the moment. It is tried again.',
    'push-unreachable': 'Its push service cannot be reached. It is tried again.',
    'push-refused': 'Its push service refused the ring. Allow alerts anew on that device.',
    'mail-unreachable': 'The mail server cannot be reached.',
    'mail-sign-in': 'The mail server does not take the sign-in name and password.',
    'mail-encryption': 'The connection to the mail server could not be encrypted.',
    'mail-refused': 'The mail server refused it.',
    'mail-later': 'The mail server wants it later.',
    'no-mailbox': 'There is no such mailbox.',
    'mailbox-full': 'The mailbox there is full.',
    'too-large-there': 'It is too large for the server there.',
    'refused-there': 'The server there refused it.',
    'unreachable-there': 'The server there could not be reached.',
    'not-said': 'It came back, and nobody said why.',
    'mail-not-set': 'Mail is not set up yet. Set it up in House, Mail, both ways.',
    'mail-elsewhere': 'Mail to this address does not come to this house. Look at House, Mail.',
    'network-inside':
      'Its address leads into this house’s own network. Write the one that it has on the internet.',
    'network-too-slow': 'The network took too long to answer. We keep trying.',
    'network-unreachable': 'The network can’t be reached. We keep trying.',
    'network-unencrypted':
      'The connection to the network could not be encrypted, so no password was told.',
    'network-too-many': 'The network asks us to wait. We try again then.',
    'network-broken': 'The network isn’t working right now. We keep trying.',
    'network-gone':
      'At this address there is nothing of that kind. Look at the address in House, Doors.',
    'not-now': 'There was too much at once. We try again.',
    'file-gone': 'The file isn’t there any longer. Ask them to send it again.',
    'network-refused': 'The network refused it.',
    'key-refused': 'The key was refused. Put a new one in at House, Doors.',
    'key-missing': 'Its key is not there. Put it in at House, Doors.',
    'answer-not-understood': 'We couldn’t understand what the network answered. We keep trying.',
    'window-closed': 'The network let it through no more: they wrote too long ago.',
    'door-mute': 'There is no door to text messages any more by which it could go out.',
    'person-stopped': 'They want nothing more by this door.',
    'person-unknown': 'The network knows nobody of that name or number.',
    'push-gone': 'The device does not want to be rung any more.',
  } as Record<string, string>,
  whyUnknown: 'What was asked did not answer as it should.',
  refusal: (refusal: Refusal): string => {
    const sentence = refusals[refusal.code];
    return typeof sentence === 'function' ? sentence(refusal) : sentence;
  },
  tables: {
    done: (added: number, changed: number, same: number) =>
      `${added} added, ${changed} changed, ${same} as they were.`,
    refused: (count: number) =>
      count === 1 ? 'One row was not taken:' : `${count} rows were not taken:`,
    row: (row: number, what: string, why: string) =>
      what ? `Row ${row} (${what}): ${why}` : `Row ${row}: ${why}`,
    restRefused: (count: number) => `… and ${count} more.`,
    reading: (share: number, rows: number) =>
      `${Math.round(share * 100)} % read, ${rows} ${rows === 1 ? 'row' : 'rows'} so far …`,
    takeCsv: 'Read in CSV',
    takeJson: 'Read in JSON',
    giveCsv: 'Write out CSV',
    giveJson: 'Write out JSON',
  },
  pictures: {
    label: 'Pictures',
    add: 'Add a picture',
    takeOut: (name: string) => `Take out ${name}`,
  },
  picture: {
    choose: 'Choose a picture',
    change: 'Choose another',
    drop: 'Take it away',
  },
  crop: {
    title: 'Which part of it?',
    more: 'Draw the picture to its place, or tap what shall be in the middle. Arrow keys move it too.',
    area: 'Picture to be cut out',
    closer: 'Closer',
    farther: 'Farther',
    take: 'Take this part',
    wrong: 'This cannot be read as a picture. Nothing was changed; choose another one.',
  },
};
/** One sentence for each code of the contract: what happened, what was kept, what to do. */
const refusals: Record<ErrorCode, string | ((refusal: Refusal) => string)> = {
  'bad-request': 'This could not be understood. Nothing was changed; check what you typed.',
  'text-empty': 'This is empty. Write something first.',
  'text-too-long': ({ limit }) =>
    `This is longer than ${limit} characters. Shorten it and try again.`,
  'time-not-ahead': 'This time has passed. Choose a later one.',
  'site-not-understood':
    'One line is not a website’s address. Nothing was saved; write it as in a browser.',
  'country-unknown': 'This country is not known. Choose one from the list.',
  'colour-unknown': 'This is no colour. Nothing was saved; write it as #2F6247.',
  'gap-unknown': 'A text has a gap in { } that nothing fills. Nothing was saved; take it out.',
  'pattern-not-understood': 'One line is no page. Nothing was saved; write it as /shop or /shop/*.',
  'number-out-of-range': ({ limit }) =>
    `A number is out of range. Nothing was saved; use a whole number from 0 to ${limit}.`,
  'host-not-understood':
    'This is no website. Nothing was saved; write its name, for example maps.example.',
  'link-not-understood': 'This is no link. Nothing was saved; write it with https:// in front.',
  'too-many-of-these': ({ limit }) => `There are ${limit} of these already, and no more fit.`,
  'choice-unknown': 'One of the choices is not known here. Nothing was saved; choose again.',
  'leads-back': 'A card leads back to itself. Nothing was saved; let it lead somewhere else.',
  'too-deep': 'Cards lead on too far. Nothing was saved; three steps are the most.',
  'leads-nowhere': 'A card leads on to nothing. Nothing was saved; choose where it leads.',
  'contact-missing': 'Enter an email or a phone number. Without one, no one can look the order up.',
  'contact-not-understood':
    'This is neither an email address nor a phone number. Nothing was looked up.',
  'order-not-found': 'There is no order with this number and this email or phone.',
  'order-taken': ({ what }) =>
    `There is already an order with the number ${what ?? 'that you wrote'}. Nothing was saved.`,
  'day-not-understood': 'This isn’t a date. Write it like 2026-12-03.',
  'order-not-now': 'The shop does not answer. Nothing is lost; try again later.',
  'offer-over': ({ what }) =>
    `${what ? `“${what}”` : 'Something of the shelf'} is over. Nothing was sent; what you wrote is kept.`,
  'shelf-gone':
    'Something of it is not on the shelf any more. Nothing was sent; what you wrote is kept.',
  'card-gone': 'This question is not answered here any more. Nothing was sent.',
  'password-wrong': 'That password isn’t right. Nothing was changed.',
  'consent-needed': 'The visitor has not agreed yet. Nothing was kept.',
  'email-taken': 'Somebody with this email is on the team already. Use another one.',
  'changed-meanwhile': 'Somebody changed this meanwhile. What you did is kept here.',
  'moved-meanwhile':
    'Who belongs together here was changed meanwhile. Nothing was done; look again.',
  'whom-unclear':
    'Someone just joined this conversation with its code. Nothing was sent. Choose who it’s for.',
  'nothing-to-undo': 'There is nothing to undo: this is the first version.',
  'last-owner': 'A house needs an owner. Make somebody else an owner first.',
  'door-closed': 'This door is closed. Nothing was sent.',
  'door-mute':
    'By this door nothing written goes out. Nothing was sent; call them back, or try another way.',
  'window-closed':
    'The network lets answers through only for a while, and that is over. Nothing was sent; try another way.',
  'person-stopped': 'They want nothing more by this door. Nothing was sent; try another way.',
  'too-many-segments': ({ limit }) =>
    `This is more than ${limit} text messages. Nothing was sent; shorten it.`,
  'link-used': 'This link was used already; each works once. Ask for a new one.',
  'link-stale': 'This link is too old or was withdrawn. Ask for a new one.',
  'zone-unknown': 'This time zone is not known. Write it as Europe/London.',
  'endpoint-refused':
    'This browser gave an address for rings that nothing may be sent to. Nothing was changed; try another browser.',
  'keys-not-understood':
    'This browser gave keys for rings that cannot be used. Nothing was changed; allow alerts again.',
  'password-too-short': ({ limit }) =>
    `The password is too short. Use at least ${limit} characters.`,
  'server-not-understood':
    'This is no server. Write its name, with a colon and its port where that is not 5222.',
  'short-code-taken': ({ what }) =>
    `${what ? `“${what}”` : 'Another one'} has this code already. Give this one another.`,
  'table-not-understood': ({ what = 'text', limit }) =>
    limit === undefined
      ? `This is no table that can be read: it needs a column called “${what}”. Nothing was taken from it.`
      : `Row ${limit} of this table cannot be read, perhaps because a quote is not closed. Nothing was taken from it.`,
  'table-in-work':
    'Another table is being read in just now. Nothing was taken from this one; try again when that is done.',
  'shelf-taken': ({ what }) =>
    `${what ? `“${what}”` : 'Something'} stands on the shelf already, with this name or number.`,
  'json-not-understood':
    'This is no JSON-LD that can be read, perhaps because a bracket is not closed. Nothing was taken from it.',
  'price-not-understood': 'This is no price. Write it like £24.50 or 24.50 EUR.',
  'address-taken': 'Another door has this address already. Use another one.',
  'email-not-understood': 'This does not look like an email address.',
  'phone-not-understood': 'This does not look like a phone number.',
  'sign-in-needed': 'You are signed out. Sign in again; what you wrote is kept on this device.',
  'sign-in-wrong': 'Email and password do not fit together. Check both.',
  'token-unknown': 'This conversation cannot be opened from here.',
  'signature-wrong': 'This did not come from where it says. Nothing of it was taken.',
  'origin-not-ours': 'This came from a page that is not ours. Nothing was changed.',
  'site-not-listed': 'This website is not on the door’s list.',
  'role-not-enough': 'Only the owner can do this. Nothing was changed.',
  'not-found': 'This is not there any more.',
  'already-set-up': 'This house is set up already. Sign in instead.',
  'id-taken':
    'Something else was sent under the same mark already. Nothing was overwritten; send it again.',
  'too-large': ({ limit }) =>
    `This is larger than ${limit ? megabytes(limit) : '10 MB'}. It was not sent.`,
  'file-empty': 'This file is empty. It was not sent.',
  'picture-too-large':
    'This picture has more than 10000 pixels on a side, or 50 million altogether. It was not sent; choose a smaller one.',
  'picture-takes-too-long':
    'This picture takes too long to open. It was not sent; save it as a JPEG and add it again.',
  'code-wrong':
    'This is not the code that the server printed. Nothing was changed; look where it was started.',
  'too-slow': 'This took too long to arrive. Nothing was changed; try again with better signal.',
  'cannot-write':
    'The house cannot write anything at the moment. Nothing was lost; what you did is kept on this device and goes out by itself.',
  'picture-unreadable': 'This is called a picture but cannot be read as one. It was not sent.',
  'file-unknown': 'A file got lost on the way. Add it again.',
  'sign-in-locked': ({ waitMs }) =>
    `Too many wrong tries from here. Try again in ${waitInWords(waitMs ?? 0)}, or on a device on which you have signed in before.`,
  'too-many': ({ waitMs }) => `That was a lot at once. Try again in ${waitInWords(waitMs ?? 0)}.`,
  'secret-sealed':
    'The key that opens what this needs is missing, or another one. Put porch.key back, or connect it anew.',
  'our-fault': 'Something went wrong on our side. Nothing was lost; try again.',
};
