import type { HeldBack, SetAside } from '@porch/core/conversation';
import type { Likeness } from '@porch/core/likeness';
import type { BounceReason } from '@porch/core/mail';

export const en = {
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
    without: 'Send without it',
    retry: 'Try again',
    drop: 'Delete',
    none: 'Choose somebody from the line',
    noneMore: 'What they said, and your answer, stand here.',
    door: 'by the website',
    byDoor: (door: string) => `by ${door}`,
    missing: (name: string) =>
      name ? `We couldn’t get ${name}` : 'Something that can’t be shown here',
    stopped: (word: string) => `“${word}”: they want nothing more by this door`,
    started: (word: string) => `“${word}”: they can be answered by this door again`,
    sendAgain: 'Try again',
    coming: (name: string) => `On its way: ${name}`,
    comingAgain: (name: string) => `Trying again: ${name}`,
    byMail: 'by email',
    sentBy: (address: string) => `sent by ${address}`,
    changed: 'changed',
    withdrawn: 'Taken back by them',
    theyChanged: 'They changed what they had said',
    theyWithdrew: 'They took back what they had said',
    team: 'You',
    gave: (what: string) => `Left in the guest book: ${what}`,
    knownThere: (what: string) => `Known there as ${what}`,
    consented: (text: string) => `Agreed: “${text}”`,
    wrappedUp: (who: string) => `${who} wrapped this up`,
    tappedFor: (who: string) => `asked often, for ${who || 'whoever comes first'}`,
    enough: 'They say that a card of what is asked often has answered it',
    askedOften: (answer: string) =>
      answer ? `Answered by a card: ${answer}` : 'A card led them on',
    putByUntil: (who: string, time: string) => `${who} put this by until ${time}`,
    takenBack: (who: string) => `${who} took this back`,
    mailed: (to: string) => `Went by email to ${to}`,
    notMailed: (to: string, why: string) => `Did not arrive by email at ${to}: ${why}`,
    noWays: {
      'no-mail': 'Not delivered yet: they’ve left, and your email isn’t connected',
      'no-email': 'Not delivered yet: they’ve left without giving an email',
      'mail-stopped': 'Not delivered yet: they’ve left, and want no emails',
    } as Readonly<Record<string, string>>,
    mailStopped: (to: string) => `They want no more emails at ${to}`,
    mailWhys: {
      'no-mailbox': 'there is no such address',
      'mailbox-full': 'the mailbox there is full',
      'too-large-there': 'it is too large for them',
      'refused-there': 'their server does not take it',
      'unreachable-there': 'their server could not be reached',
      'not-said': 'their server did not say why',
      other: 'it could not be sent',
    } satisfies Record<BounceReason | 'other', string> as Record<string, string>,
    setAside: {
      automatic: 'written by a program, so nobody waits',
      junk: 'junk, as the mail server says, so nobody waits',
      forged: 'the mail server doubts who wrote it, so nobody waits',
      card: 'asked often, so nobody waits',
    } satisfies Record<SetAside, string>,
    elsewhere: {
      show: (count: number) => (count === 1 ? 'Show its picture' : `Show its ${count} pictures`),
      why: 'The sender learns then that it is read.',
      missing: (count: number) =>
        count === 1 ? 'One picture could not be had.' : `${count} pictures could not be had.`,
      none: 'There was nothing to see in them.',
    },
    rest: { show: 'Show the rest of the email', hide: 'Hide the rest of the email' },
    more: { show: 'Show the rest of it', hide: 'Hide the rest of it' },
    asked: (from: string) =>
      `Is this theirs? It came by email from ${from}, not from where we wrote to.`,
    askedFrom: (from: string) => `An email from ${from}`,
    isTheirs: 'It is theirs',
    isNotTheirs: 'It is not',
    isTheirsAfterAll: 'It is theirs after all',
    decided: (who: string, isTheirs: boolean) =>
      isTheirs ? `${who}: the email is theirs` : `${who}: the email is not theirs`,
    owed: {
      // Not drawn: the question stands there itself.
      asked: (time: string) => `Whose an email is, is to be said by ${time}`,
      held: (time: string) => `Their email could not be taken in: an answer is owed by ${time}`,
      bounced: (time: string) => `It did not arrive: an answer is owed by ${time}`,
      note: (time: string) => `An answer is owed by ${time}`,
      'call-back': (time: string) => `They are to be called by ${time}`,
      left: (time: string) => `They left without an answer: it is owed by ${time}`,
      hand: (who: string, what: string, time: string) =>
        what ? `${who} promised: ${what}, by ${time}` : `${who} promised an answer by ${time}`,
    },
    owedChanged: (who: string, what: string, time: string) =>
      what ? `${who} changed what is owed: ${what}, by ${time}` : `${who} moved it to ${time}`,
    owedDone: (who: string) => (who ? `${who}: done what was owed` : 'What was owed is done'),
    owedUndone: (who: string) => `${who}: not done after all`,
    returned: 'Came back by itself',
    doorSign: (text: string) => `The door said: “${text}”`,
    order: (text: string) => `The door said where it is: “${text}”`,
    greeted: (text: string, name: string) =>
      name ? `Greeted in the name of ${name}: “${text}”` : `Greeted: “${text}”`,
    turnedSoon: (time: string) =>
      `Nobody had looked in time: the porch light turned to “back soon” by itself, until ${time}`,
    heldBack: {
      automatic: (from: string) => `An automatic email from ${from} was not passed on`,
      'unknown-sender': (from: string) =>
        `An answer by email from ${from} was not passed on: it came from another address than the alert went to`,
      stale: (from: string) =>
        `An answer by email from ${from} was not passed on: the alert was too old`,
      'too-large': (from: string) =>
        `An answer by email from ${from} was not passed on: it was too large`,
      unreadable: (from: string) =>
        `An answer by email from ${from} was not passed on: what was attached could not be read`,
      empty: (from: string) =>
        `An answer by email from ${from} was not passed on: nothing was written in it`,
      'other-address': (from: string) =>
        `An email from ${from} was not taken in: it came from another address than we wrote to`,
      encrypted: (from: string) =>
        `An answer by email from ${from} was not passed on: it is encrypted, and only their and your own program could open it`,
      forged: (from: string) =>
        `An email from ${from} was not taken in: the mail server says that it does not come from there`,
      'door-closed': (from: string) =>
        `An answer by email from ${from} was not passed on: the door is closed`,
      'whom-unclear': (from: string) =>
        `An email answer from ${from} wasn’t sent on: we can’t tell who it’s for`,
    } satisfies Record<HeldBack, (from: string) => string>,
    quietMore: (count: number) => `and ${count} more`,
    quietLess: 'Show less',
    rung: {
      rang: (who: string, times: string) => `rang ${who} ${times}`,
      wrote: (who: string, times: string) => `wrote to ${who} ${times}`,
      failed: (who: string, times: string) => `could not ring ${who} ${times}`,
      notWritten: (who: string, times: string) => `could not write to ${who} ${times}`,
      looked: (who: string, time: string) => `${who} looked ${time}`,
      nobody: 'nobody has looked yet',
    },
    joined: (who: string) => `${who} put this together: it is one person`,
    joinedByCode: 'Put together: they sent this conversation’s code',
    joinedByItself: 'Put together: it was proven to be one person',
    parted: {
      stays: (who: string) => `${who} parted somebody else’s conversation from this one`,
      goes: (who: string) => `${who} parted this from another conversation`,
    },
    theHouse: 'The house',
    bygone: (kind: string) => `Something that this version no longer knows (${kind})`,
    download: (name: string, size: string) => `Download ${name}, ${size}`,
    openPicture: (name: string) => `Open picture ${name}`,
    typing: (name: string) => `${name} is typing`,
    leftAsNote: 'left as a note',
  },
  share: {
    title: 'For whom is this?',
    what: 'What was shared',
    nothing: 'Nothing was shared, or it has been used already.',
    drop: 'Do not use it',
    toLine: 'Go to the line',
    newest: 'Conversations',
  },
  states: {
    mailed: 'By email',
    notArrived: 'Did not arrive',
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
    mail: (address: string) => `Goes by email to ${address}`,
    mailGone: (address: string, time: string) => `Goes by email to ${address}, they left ${time}`,
    nowhere: {
      'no-address': 'No way to reach them: it will show if they come back',
      'no-mail': 'Mail is not set up: it will show if they come back',
      stopped: 'They want no more emails: it will show if they come back',
    },
    by: (route: string, door: string) => `${route} (${door})`,
    heldUp: (why: string) =>
      `Your last answer hasn’t gone out yet. ${why} What you write now follows it.`,
    network: {
      asText: 'Goes to them as a text message',
      always: (door: string) => `Goes to them by ${door}`,
      until: (door: string, left: string) =>
        `Goes to them by ${door}, which lets it through for another ${left}`,
      window: (door: string, since: string) =>
        `${door} has let nothing through since ${since}: they can be answered once they write again`,
      stopped: (door: string) => `They want nothing more by ${door}`,
      closed: (door: string) => `${door} is closed: open it again in House to answer by it`,
      mute: (door: string) =>
        `${door} carries nothing written: call them back, or open a door to text messages`,
      gone: (door: string) =>
        `${door || 'The door'} was taken away: it can be read, but not answered`,
    },
  },
  ways: {
    title: 'Answer by',
    shut: (door: string) => `${door} (closed)`,
    unclear: 'No one chosen yet',
    byCode: (door: string) =>
      `Someone on ${door} joined with this conversation’s code. It may be someone else.`,
    whom: (door: string) => `Choose who this is for. The last message came from ${door}.`,
    others: (doors: string) => `They can still be reached by ${doors}.`,
    asLinks: 'Files go as links to this house, good for 30 days.',
  },
  call: {
    asked: (phone: string, time: string | null) =>
      time === null
        ? `Asks to be called at ${phone}, as soon as somebody can`
        : `Asks to be called at ${phone}, ${time}`,
    now: (phone: string) => `Call ${phone}`,
    missed: 'Missed call',
    spoken: (seconds: number) => `Missed call, ${seconds} s spoken after the tone`,
    back: (phone: string) => `Call ${phone} back`,
    noNumber: 'They keep their number to themselves.',
    sound: (name: string) => `Sound ${name}`,
  },
  segments: {
    cost: (count: number, left: number, encoding: 'alphabet' | 'unicode') => {
      const unit = encoding === 'unicode' ? ' in Unicode' : '';
      const texts = count === 1 ? `1 text message${unit}` : `Costs ${count} text messages${unit}`;
      return `${texts}, ${left} ${left === 1 ? 'character' : 'characters'} left in it`;
    },
    costly: (character: string) => `“${character}” makes it cost more`,
    instead: (instead: string) => `Use ${instead} for it`,
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
    owe: 'Follow up …',
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
  alike: {
    title: 'Perhaps the same person',
    reasons: {
      email: 'the same email, as they say',
      phone: 'the same number, as they say',
      device: 'the same device',
      name: 'the same name',
    } satisfies Record<Likeness, string>,
    same: 'The same person',
    sameAs: (who: string) => `The same person as ${who}`,
    notSame: 'Somebody else',
    notSameAs: (who: string) => `Somebody else than ${who}`,
  },
  notDone: {
    deeds: {
      say: 'Not sent',
      'wrap-up': 'Not wrapped up',
      'put-by': (time: string) => `Not put by until ${time}`,
      'take-back': 'Not taken back',
      join: 'Not put together',
      part: 'Not parted',
      read: 'Not marked as read',
      owe: 'Not written down as owed',
      'owe-otherwise': 'What is owed was not changed',
      'owe-done': 'Not marked as done',
      'owe-again': 'Not taken back',
      'own-mail': 'Not said whose the email is',
    },
    putByAgain: 'Choose another time',
    leave: 'Leave it',
  },
  undo: {
    joined: (name: string) => `Put together with ${name}`,
    parted: 'Parted',
  },
};
