/** What is said of doors to networks; apart, because only their own screens need it. */
export const networkEn = {
  heard: (time: string) => `last heard ${time}`,
  neverHeard: 'nothing heard yet',
  failing: (time: string, why: string) => `failing since ${time}: ${why}`,
  unknownKind: 'a kind of door that this version does not know',
  health: 'How it is',
  well: (line: string) => `All is well, ${line}`,
  connect: 'Connection',
  developer: {
    bridge: 'How to write a bridge, with a complete example.',
    phone: 'How a phone provider is connected.',
    text: 'How a text message provider is connected.',
  },
  onStreet: 'To try out',
  onStreetMore: 'These networks are made up. They come with the demo.',
  keyKept: 'Kept. Type to put another in its place',
  save: 'Save',
  saved: 'Saved',
  step: {
    find: '1. Say where it is',
    putIn: '2. Tell it where we are',
    know: '2. Good to know',
    test: '3. Try it both ways',
  },
  check: 'Ask whether all is well',
  checking: 'Asking',
  checked: 'It answered: all is well.',
  renew: 'Make another key',
  renewMore: 'The one before it is good for another day, so that nothing is lost meanwhile.',
  testIn: 'Write something to it from a phone of yours, as a customer would.',
  testInDone: (who: string, time: string) => `Heard from ${who}, ${time}`,
  somebody: 'somebody',
  testInOpen: 'Open what they said',
  testOut: 'Then answer it: say here that this is a test.',
  testOutText: (business: string) => `A test from ${business}: your message has arrived.`,
  testOutSend: 'Send a test answer',
  sent: {
    waiting: 'The last answer is on its way out.',
    sent: 'The last answer was sent.',
    arrived: 'The last answer has arrived.',
    read: 'The last answer has arrived and was read.',
    failed: 'The last answer was not sent',
  },
  can: 'What it can do',
  canText: (longest: number) => `Texts of up to ${longest} characters`,
  canSegments: (most: number) => `Texts of up to ${most} segments, counted while you write`,
  canFiles: (most: number) =>
    most === 0
      ? 'No files: they go as links to this house, good for 30 days'
      : `Up to ${most} ${most === 1 ? 'file' : 'files'} with a message; more go as links, good for 30 days`,
  canWindow: (span: string) => `Answers within ${span} after somebody’s last message`,
  canAlways: 'Answers at any time',
  canReceipts: {
    none: 'It does not say whether an answer has arrived',
    sent: 'It says when an answer was sent',
    arrived: 'It says when an answer has arrived',
    read: 'It says when an answer has arrived and was read',
  },
  concernsMore: 'They hear its bell. Everybody on the team can answer.',
  listing: {
    title: 'What the listing shows',
    more: 'The listing and your porch light follow each other. Your opening hours are handed to it.',
    on: 'chat is on',
    off: 'chat is off',
    away: (time: string) => `away until ${time}`,
    agreed: (what: string, time: string) => `Both say since ${time}: ${what}`,
    hours: (hours: string) => `Open ${hours}`,
    noHours: 'You have not set opening hours: the listing says none.',
    hoursThere: (hours: string) => (hours ? `open ${hours}` : 'no opening hours'),
    differed: (what: readonly string[]) =>
      `It had said something else before that: ${[...new Set(what)].join('; ')}`,
  },
  questions: {
    title: 'Its questions',
    more: (door: string) =>
      `The questions on the listing and the cards that ${door} shows first are the same: whichever is changed, the other follows. Where both are, the card counts.`,
    same: (count: number) =>
      count === 0
        ? 'There is no question on either yet.'
        : count === 1
          ? 'One question is the same on both.'
          : `${count} questions are the same on both.`,
    followed: (count: number, time: string) =>
      `${time}: ${count === 1 ? 'one card' : `${count} cards`} changed after the listing. Publishing can be taken back where the door is dressed.`,
    outvoted: 'Both had been changed, and the card counts. The listing had said:',
    notTaken: 'No card could be made of these; they stay on the listing:',
    notTakenWhy: 'They are too long for a card, or as many are shown first as there may be.',
    tooLong: 'Not on the listing, since their answers are longer than it takes:',
    failed: (why: string) => `They could not be compared (${why}). It is tried again every minute.`,
    dress: 'Dress the cards',
  },
  offered: 'On your website',
  offeredMore:
    'Whoever would rather write by it is led there from the panel. What was said goes on as the same conversation, by a code in their message.',
  offer: (name: string) => `Offer ${name} in the panel`,
  hours: 'Its own opening hours',
  closeMore: 'Nothing comes in or goes out by it while it is closed. What was said stays.',
  remove: 'Take this door away',
  removeMore:
    'Its keys are forgotten. What was said by it can still be read, but not answered by it any more.',
  removeAsk: (name: string) => `Take ${name} away for good?`,
  removeDo: 'Take it away',
  removeNot: 'Keep it',
};
