import type { JobName } from '@porch/contract/jobs';
import { many } from '../../../kit/many';

export const en = {
  title: 'House',
  device: 'This device',
  sound: 'Sound when somebody writes',
  shortcuts: 'Keyboard shortcuts',
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
  places: {
    doors: 'Doors',
    business: 'Business',
    businessMore: 'Name, picture, place, address',
    team: 'Team',
    teamMore: (count: number) => many(count, 'person', 'people'),
    me: 'You',
    addDoor: 'Add a door',
  },
  checklist: {
    title: 'Getting ready',
    more: 'This list ticks itself and goes away when all is done.',
    done: 'Done',
    open: 'To do',
    snippet: 'The door is on your website',
    snippetNot: (ago: string) => `Not seen yet, last looked ${ago} ago`,
    snippetHow: 'How to put it up',
    look: 'Look now',
    unlisted: (site: string) => `It was seen on ${site}, where it may not stand.`,
    allow: (site: string) => `Allow ${site}`,
    phone: 'A phone is signed in',
    phoneDo: 'Sign in my phone',
    hours: 'Opening hours are set',
    hoursDo: 'Set them',
    answered: 'A test message is answered',
    answeredDo: 'Write to yourself',
    dressed: 'The door is dressed',
    dressedDo: 'Dress it',
    darkTexts: 'You have read what visitors see while nobody is in',
    darkTextsDo: 'Read it',
    team: 'The team is in',
    teamDo: 'Invite somebody',
    alone: 'I work alone',
    resume: 'Go on setting up',
  },
  business: {
    title: 'Business',
    name: 'Name of the business',
    picture: 'Picture',
    round: 'Round',
    square: 'Square',
    shape: 'Shape of the picture',
    zone: 'Time zone',
    country: 'Country',
    countryMore: 'Phone numbers without a country code belong here.',
    countryNone: 'Not said',
    address: 'Address to write to',
    addressMore:
      'An email address. While nobody is in, the panel says that people may write there.',
    onlyOwner: 'Only an owner can change this.',
  },
  warning: {
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
      remind: 'Remind of a follow-up',
      return: 'Bring back a conversation that was put by',
      deliver: 'Send an answer',
      push: 'Ring a device',
      'ring-on': 'Ring on while nobody looks',
      'visitor-mail': 'Bring an answer to somebody by email',
      'alert-mail': 'Write by email that somebody waits',
      'held-mail': 'Let in an email that is theirs',
      'refusal-mail': 'Say by email that an answer was not sent',
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
};
