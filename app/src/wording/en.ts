import type { ErrorCode, Refusal } from '@porch/contract/errors';
import type { JobName } from '@porch/contract/team';
import type { Group } from '@porch/core/conversation';
import { houseWords } from './house';

const megabytes = (bytes: number): string => `${Math.floor(bytes / 1024 / 1024)} MB`;

const waitInWords = (ms: number): string => {
  const seconds = Math.ceil(ms / 1000);
  return seconds < 60 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`;
};

/** Every sentence of the owner's app, in English. Other languages are tables of the same shape. */
export const en = {
  name: 'Hello Porch',
  places: { line: 'The line', search: 'Search', house: 'House', nav: 'Places' },
  groups: {
    waiting: 'Waiting',
    note: 'Left a note',
    answered: 'Answered',
    'put-by': 'Put by',
    'wrapped-up': 'Wrapped up',
  } satisfies Record<Group, string>,
  groupsMore: {
    waiting: 'least patience first',
    note: 'written while nobody was in',
    answered: 'it is their turn',
    'put-by': 'comes back by itself',
    'wrapped-up': 'done',
  } satisfies Record<Group, string>,
  line: {
    label: 'The line',
    more: (left: number) => `Show more (${left} left)`,
    empty: 'Nobody is waiting',
    emptyMore:
      'When somebody writes on your website, they stand here, and their patience burns down beside their name.',
    emptyAction: 'Open your website door',
    unread: (count: number) => `${count} unread`,
    here: 'on the page now',
    cameBack: 'came back',
    called: {
      page: (page: string) => `Somebody on ${page}`,
      city: (city: string) => `Somebody from ${city}’s time`,
      nothing: 'Somebody',
    },
    you: 'You: ',
    typing: 'is typing',
    file: 'a file',
  },
  patience: {
    left: (time: string) => `${time} left`,
    late: (time: string) => `${time} late`,
    since: (time: string) => `since ${time}`,
    until: (time: string) => `until ${time}`,
  },
  lamp: {
    label: 'Porch light',
    lit: 'Answering now',
    'back-soon': (time: string) => `Back at ${time}`,
    dark: 'Dark until you light it',
    litMore: 'Porch light · lit',
    'back-soonMore': 'Porch light · back soon',
    darkMore: 'Porch light · dark',
    change: 'Change the porch light',
    setLit: 'Answer now',
    setLitMore: 'Visitors see that somebody is in.',
    setSoon: 'Back soon',
    setSoonMore: 'Visitors see when, and leave a note. The light comes back by itself.',
    minutes: (count: number) => (count < 60 ? `${count} min` : `${count / 60} h`),
    at: 'Back at',
    atSet: 'Set',
    atWrong: 'Choose a time first.',
    setDark: 'Go dark',
    setDarkMore: 'Visitors leave a note. It stays dark until you light it.',
  },
  conversation: {
    back: 'Back to the line',
    roll: 'What was said',
    older: 'Show earlier',
    whosThis: 'Who’s this',
    write: 'Your answer',
    send: 'Send',
    addFile: 'Add a picture or file',
    dropFile: (name: string) => `Take ${name} out`,
    tooLong: (over: number) => `${over} characters too long`,
    tooMuch: (length: number) =>
      `That is ${length} characters; 4000 fit into a message. It was not taken in; what stood here is kept.`,
    retry: 'Try again',
    drop: 'Delete',
    wrapUp: 'Wrap up',
    putBy: 'Put by',
    takeBack: 'Take back',
    actions: 'More',
    none: 'Choose somebody from the line',
    noneMore: 'What they said, and your answer, stand here.',
    door: 'by the website',
    team: 'You',
    website: 'Website door',
    gave: (what: string) => `Left in the guest book: ${what}`,
    consented: (text: string) => `Agreed: “${text}”`,
    wentTo: (page: string) => page,
    wrappedUp: (who: string) => `${who} wrapped this up`,
    putByUntil: (who: string, time: string) => `${who} put this by until ${time}`,
    takenBack: (who: string) => `${who} took this back`,
    returned: 'Came back by itself',
    joined: (who: string) => `${who} put this together: it is one person`,
    joinedByItself: 'Put together: it was proven to be one person',
    parted: {
      stays: (who: string) => `${who} parted somebody else’s conversation from this one`,
      goes: (who: string) => `${who} parted this from another conversation`,
    },
    theHouse: 'The house',
    bygone: (kind: string) => `Something that this version no longer knows (${kind})`,
    download: (name: string, size: string) => `Download ${name}, ${size}`,
    openPicture: (name: string) => `Open picture ${name}`,
    closePicture: 'Close picture',
    typing: (name: string) => `${name} is typing`,
    leftAsNote: 'left as a note',
  },
  /** Why something did not go out, or did not happen, where it is no refusal of our own. */
  whys: {
    gone: 'Nobody answered there.',
    refused: 'It was refused there.',
    'door-unknown': 'The door is not there any more.',
  } as Record<string, string>,
  whyUnknown: 'What was asked did not answer as it should.',
  states: {
    goingOut: 'On its way out',
    waiting: 'Waiting for signal',
    sending: 'Sending',
    sent: 'Sent',
    arrived: 'Arrived',
    read: 'Read',
    failed: 'Not sent',
  },
  route: {
    here: 'Goes to: their screen, they are on the page',
    gone: (time: string) => `They left · ${time}. They see it when they come back to the page`,
    away: 'They are not on the page. They see it when they come back to it',
    by: (route: string, door: string) => `${route} (${door})`,
  },
  who: {
    title: 'Who’s this',
    name: 'Name',
    email: 'Email',
    phone: 'Phone',
    page: 'Page',
    first: 'First wrote',
    last: 'Last said',
    door: 'Door',
    notGiven: (what: string) => `Not given: ${what}`,
    elsewhere: (host: string) => `a page of ${host}, which is not on the door’s list`,
    presence: 'Now',
    here: 'On the page',
    gone: (time: string) => `Left · ${time}`,
    never: 'Not on the page',
    close: 'Close',
    same: 'The same person as …',
    sameTitle: 'The same person as',
    sameMore:
      'Both conversations become one. What they see themselves stays as it is, and it can be parted again.',
    sameSearch: 'Who: a name, an email, words they wrote',
    sameNone: 'Nobody else was found by this.',
    threads: 'Writes by',
    wroteLast: (time: string) => `last ${time}`,
    part: 'Somebody else',
    partThis: (who: string) => `Part ${who}: this is somebody else`,
  },
  putBy: {
    title: 'Put by until',
    hour: 'In an hour',
    evening: 'This evening, 18:00',
    tomorrow: 'Tomorrow, 09:00',
    monday: 'Monday, 09:00',
    own: 'Another day and time',
    ownDay: 'Day',
    ownTime: 'Time',
    said: 'Or write it',
    saidMore: 'As in “tomorrow 9”, “Friday 10:30” or “24 Dec 14:00”.',
    set: 'Put by',
    wrong: 'This is no day and time to come within a year. Choose another one.',
  },
  /** Words by which people name days; also understood in short, from three letters on. */
  dayWords: {
    today: 'today',
    tomorrow: 'tomorrow',
    weekdays: ['sunday', 'monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday'],
    months: [
      'january',
      'february',
      'march',
      'april',
      'may',
      'june',
      'july',
      'august',
      'september',
      'october',
      'november',
      'december',
    ],
    ahead: 'in',
    hours: ['hour', 'hours'],
    days: ['day', 'days'],
    weeks: ['week', 'weeks'],
    morning: 'am',
    afternoon: 'pm',
  },
  undo: {
    action: 'Undo',
    'wrapped-up': 'Wrapped up',
    'put-by': (time: string) => `Put by until ${time}`,
    joined: (name: string) => `Put together with ${name}`,
    parted: 'Parted',
  },
  search: {
    label: 'Words, a name, an email',
    empty: 'Search everything ever said, by words and by person.',
    none: (words: string) => `Nothing was found for “${words}”.`,
    noneMore: 'Every word must be in the same message, or in what somebody left in the guest book.',
    found: (count: number) => (count === 1 ? '1 conversation' : `${count} conversations`),
    older: 'Show older',
  },
  house: {
    title: 'House',
    device: 'This device',
    sound: 'Sound when somebody writes',
    shortcuts: 'Keyboard shortcuts',
    hearSound: 'Hear it',
    on: 'On',
    off: 'Off',
    account: 'Account',
    signedInAs: (name: string) => `Signed in as ${name}`,
    signOut: 'Sign out',
    signOutAll: 'Sign out on every device',
    pair: 'Sign in a phone',
    unsent: (count: number) =>
      count === 1
        ? '1 message is still waiting on this device and would be lost.'
        : `${count} messages are still waiting on this device and would be lost.`,
    signOutAnyway: 'Sign out anyway',
  },
  ...houseWords,
  signIn: {
    title: 'Sign in',
    email: 'Email',
    password: 'Password',
    submit: 'Sign in',
    forgot: 'Forgot the password?',
    forgotMore:
      'An owner of your team can hand you a link to a new one (House, Team). If you are the owner, “npm run new-password” on the server prints one.',
    byCode:
      'On a phone, a code on a screen that is signed in works without a password: House, Sign in a phone.',
  },
  setUp: {
    title: 'Set up your house',
    more: 'Two minutes: your business, and the account with which you answer.',
    code: 'Code of the house',
    codeMore: 'It was printed where the server was started, as in K7QM-2XWP.',
    business: 'Name of the business',
    name: 'Your name',
    nameMore: 'Visitors see it beside your answers.',
    email: 'Email',
    emailMore: 'With it you sign in.',
    password: 'Password',
    passwordMore: (shortest: number) => `At least ${shortest} characters.`,
    submit: 'Open the house',
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
      ['u', 'take back'],
      ['l', 'porch light'],
      ['/', 'search'],
      ['g', 'the line'],
      ['h', 'house'],
      ['Esc', 'close, or back'],
      ['?', 'this sheet'],
    ] as const,
  },
  cannotWrite:
    'The house cannot write at the moment: its disk is full, or may only be read. What you do is kept on this device and goes out by itself.',
  notDone: {
    strip: (count: number) =>
      count === 1 ? 'One thing was not done.' : `${count} things were not done.`,
    look: 'Look',
    deeds: {
      say: 'Not sent',
      'wrap-up': 'Not wrapped up',
      'put-by': (time: string) => `Not put by until ${time}`,
      'take-back': 'Not taken back',
      join: 'Not put together',
      part: 'Not parted',
      read: 'Not marked as read',
    },
    putByAgain: 'Choose another time',
    leave: 'Leave it',
  },
  warning: {
    strip: 'Somebody tried to sign in as you.',
    title: 'Wrong tries at your account',
    more: (count: number, time: string) =>
      `${count} times a wrong password was given for your account, last ${time}, on devices that never signed in. None came in, and you are not kept out. If the password is short or used elsewhere, change it.`,
    change: 'Change the password',
    seen: 'I have seen it',
  },
  deadJobs: {
    title: (count: number) =>
      count === 1 ? 'One thing could not be done' : `${count} things could not be done`,
    more: 'Each was tried several times. Try it again when what was wrong is right, or leave it.',
    kinds: {
      return: 'Bring back a conversation that was put by',
      deliver: 'Send an answer',
    } satisfies Record<JobName, string> as Record<string, string>,
    other: (kind: string) => `Something that had to happen (${kind})`,
    facts: (why: string, tries: number, time: string) =>
      `${why} ${tries === 1 ? 'Tried once' : `Tried ${tries} times`}, last ${time}.`,
    again: 'Try again',
    leave: 'Leave it',
    newest: (shown: number) => `The newest ${shown} are shown.`,
  },
  findings: {
    title: 'Something is wrong with the data',
    'log-damaged': (time: string) =>
      `When the house was started (${time}) the end of its log could not be read. What was written last before that may be missing. Compare with what you remember; a backup can be restored as docs/deploying.md says.`,
    'secrets-sealed': (time: string) =>
      `When the house was started (${time}) it could not open what some doors need to go in and out. Nothing was lost: put the file porch.key back where it was and start the house again, or connect those doors anew.`,
    seen: 'I have read it',
  },
  offline: 'No connection. What you see is from before; what you send waits here.',
  loading: 'Loading',
  failed: {
    title: 'This could not be shown',
    more: 'Nothing was lost. Check the connection and try again.',
    retry: 'Try again',
  },
  notFound: {
    title: 'There is nothing at this address',
    more: 'The conversation or page you look for may have moved.',
    action: 'Go to the line',
  },
  newMessage: (count: number, name: string) => `(${count}) ${name}`,
  refusal: (refusal: Refusal): string => {
    const sentence = refusals[refusal.code];
    return typeof sentence === 'function' ? sentence(refusal) : sentence;
  },
};

export type Wording = typeof en;

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
  'link-not-understood': 'This is no link. Nothing was saved; write it with https:// in front.',
  'too-many-of-these': ({ limit }) => `There are ${limit} of these already, and no more fit.`,
  'choice-unknown': 'One of the choices is not known here. Nothing was saved; choose again.',
  'password-wrong': 'The old password is not right. Nothing was changed.',
  'consent-needed': 'The visitor has not agreed yet. Nothing was kept.',
  'email-taken': 'Somebody with this email is on the team already. Use another one.',
  'changed-meanwhile': 'Somebody changed this meanwhile. What you did is kept here.',
  'moved-meanwhile':
    'Who belongs together here was changed meanwhile. Nothing was done; look again.',
  'nothing-to-undo': 'There is nothing to undo: this is the first version.',
  'last-owner': 'A house needs an owner. Make somebody else an owner first.',
  'door-closed': 'This door is closed. Nothing was sent.',
  'link-used': 'This link was used already; each works once. Ask for a new one.',
  'link-stale': 'This link is too old or was withdrawn. Ask for a new one.',
  'zone-unknown': 'This time zone is not known. Write it as Europe/London.',
  'password-too-short': ({ limit }) =>
    `The password is too short. Use at least ${limit} characters.`,
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
    'The key that opens the door’s secret is missing, or another one. Put porch.key back, or connect the door anew.',
  'our-fault': 'Something went wrong on our side. Nothing was lost; try again.',
};
