import type { AlertDeed, MessageChoice, QuietChoice, Sound } from '@porch/core/ringing';
import { many } from '../../../kit/many';
import type { Platform } from '../../../shell/session/platform';

/** The steps by which the app comes onto a home screen, and what has to be said with them. */
interface Steps {
  title: string;
  steps: readonly string[];
  more: string;
}

export const en = {
  title: 'Doorbell',
  places: {
    doorbell: 'Doorbell',
    doorbellMore: (count: number) =>
      count === 0 ? 'No device of yours rings yet' : many(count, 'device rings', 'devices ring'),
    install: 'On the home screen',
    installDone: 'This app is installed here',
    installMore: 'How to put it there',
  },
  checklist: {
    homeScreen: 'The app is on a home screen',
    homeScreenDo: 'Show me how',
    rings: 'A device of yours rings',
    ringsDo: 'Let it ring',
  },
  here: {
    title: 'This device',
    ask: 'When somebody writes, this device can ring, also while the app is closed and the screen is off. Your browser will ask whether it may show alerts.',
    allow: 'Let this device ring',
    denied: 'Alerts are switched off for this app in this browser, so nothing can ring here.',
    undo: {
      iphone: [
        'Open the phone’s Settings',
        'Tap Notifications, then Hello Porch',
        'Switch on “Allow notifications”',
      ],
      android: [
        'Tap the sign to the left of the address, or hold the app’s icon and tap “App info”',
        'Tap Permissions, then Notifications',
        'Choose “Allow”, and come back here',
      ],
      'desktop-installs': [
        'Click the sign to the left of the address',
        'Switch Notifications on',
        'Come back here',
      ],
      'desktop-dock': [
        'Open the browser’s Settings, then Websites, then Notifications',
        'Choose “Allow” beside this address',
        'Come back here',
      ],
      'desktop-none': [
        'Click the sign to the left of the address',
        'Take away the block beside “Send notifications”',
        'Come back here',
      ],
    } satisfies Record<Platform, readonly string[]>,
    notNow: 'The browser was not allowed to show alerts. You can allow it whenever you like.',
    installFirst:
      'An iPhone or iPad rings only for an app that is on its home screen. Put it there first; it takes half a minute.',
    install: 'Show me how',
    cannot:
      'This browser cannot be rung. Use another one on this device, or let another device ring.',
    noService:
      'This browser could not reach the service that rings it, or has none. Nothing was changed; try again with signal, or in another browser.',
    sealed:
      'The key by which devices know this house cannot be opened, so none can ring. Put the file porch.key back and start the server again; or make a new key, after which every device has to be allowed anew.',
    newKey: 'Make a new key',
    rings: 'This device rings.',
    muted: 'This device is muted.',
    ringNow: 'Ring me now',
    sent: (time: string) => `Sent ${time}.`,
    taken: (time: string) => `Its push service took it ${time}.`,
    arrived: (time: string, after: string) => `It arrived ${time}, after ${after}.`,
    waiting: 'Waiting for it to arrive …',
    notArrived:
      'It was taken, and has not arrived within half a minute. Is the device on, with signal, and are alerts for this browser allowed in its own settings?',
  },
  devices: {
    title: 'Your devices',
    none: 'No device of yours rings yet.',
    this: 'this one',
    rung: (time: string) => `last rung ${time}`,
    neverRung: 'not rung yet',
    failed: (time: string, why: string) => `${time}: ${why}`,
    mute: 'Mute',
    unmute: 'Let it ring',
    muted: 'muted',
    remove: 'Remove',
    more: (name: string) => `More about ${name}`,
  },
  what: {
    title: 'What rings',
    messages: 'Messages',
    choices: {
      every: 'Each message',
      first: 'The first of each wait',
      low: 'Only when patience runs low',
    } satisfies Record<MessageChoice, string>,
    notes: 'What is left while nobody is in',
    doors: 'Doors',
    comesBack: 'Somebody who has written before is back on the website',
    pages: 'Somebody lands on one of these pages',
    pagesMore:
      'One a line, as /delivery, or /plants/* for all below it. At most once in ten minutes.',
    pagesWrong: 'Each line begins with a slash, without spaces. Nothing was saved.',
  },
  quiet: {
    title: 'Quiet hours',
    isOn: 'Keep quiet at night',
    from: 'From',
    to: 'Until',
    zone: 'By the clocks of',
    mayRing: 'What may ring all the same',
    choices: {
      nothing: 'Nothing',
      low: 'When patience runs low',
      first: 'The first of each wait',
    } satisfies Record<QuietChoice, string>,
  },
  how: {
    title: 'How it rings',
    sound: 'Sound while the app is open',
    soundMore:
      'Closed, a device plays the sound that its own settings say: no browser lets an app choose another one.',
    sounds: {
      'two-notes': 'Two notes',
      'wooden-knock': 'A knock',
      'small-bell': 'A small bell',
    } satisfies Record<Sound, string>,
    silent: 'None',
    hear: 'Hear it',
    vibrates: 'Vibrate',
    vibratesMore: 'Where the device can.',
    hidesWords: 'Keep what was said off the lock screen',
    preview: 'So it looks',
    previewHidden: 'Wrote to you. Open it to read.',
    previewWords: 'Is the bench open on Saturday?',
    buttons: 'Buttons on an alert',
    first: 'First button',
    second: 'Second button',
    deeds: {
      open: 'Open',
      'short-reply': 'A short reply',
      'back-soon': 'Back in 15 min',
      'put-by': 'Put by 1 hour',
    } satisfies Record<AlertDeed, string>,
    buttonsMore: 'An iPhone shows none; a tap on the alert opens the conversation there.',
    shortReply: 'The short reply',
    shortReplyMore: 'Goes to the visitor at once, under your name.',
    shortReplyHint: 'I am with a customer and write to you in a moment.',
  },
  ringOn: {
    title: 'While nobody looks',
    more: 'Whoever opens the conversation stops it for everybody.',
    again: 'Ring again after',
    others: 'Then ring the others after',
    whoElse: 'Who else is rung',
    mail: 'Then write an email after',
    toWhom: 'To whom',
    noMail: 'Nothing goes out by email yet: no mail server is set.',
    setUpMail: 'Set up mail',
    never: 'Never',
    seconds: (count: number) => many(count, 'second', 'seconds'),
    minutes: (count: number) => many(count, 'minute', 'minutes'),
    onlyOwner: 'An owner can change this.',
  },
  install: {
    title: 'On the home screen',
    lead: 'From the home screen it opens like any other app, without signal too, and can ring.',
    done: 'The app is installed on this device.',
    now: 'Install it',
    here: 'On this device',
    others: 'On other devices',
    steps: {
      iphone: {
        title: 'iPhone and iPad',
        steps: [
          'Open this address in the browser, and sign in',
          'Tap the share button: the square with an arrow',
          'Choose “Add to Home Screen”, then “Add”',
          'Open it from there, and let it ring',
        ],
        more: 'Only this way: an iPhone rings for nothing that is not on its home screen. From iOS 16.4 on.',
      },
      android: {
        title: 'Android',
        steps: [
          'Open the browser’s menu: the three dots',
          'Choose “Add to home screen” or “Install app”',
          'Tap “Install”',
        ],
        more: 'It rings in the browser as well; from the home screen it opens faster and without signal.',
      },
      'desktop-installs': {
        title: 'Computer, with Chrome or Edge',
        steps: [
          'Look at the right end of the address: a screen with an arrow',
          'Click it, then “Install”',
        ],
        more: 'It gets a window of its own, and rings while the browser runs in the background.',
      },
      'desktop-dock': {
        title: 'Mac, with Safari',
        steps: [
          'Open the File menu',
          'Choose “Add to Dock”',
          'Open it from there, and let it ring',
        ],
        more: 'From macOS Sonoma on.',
      },
      'desktop-none': {
        title: 'Computer, with Firefox',
        steps: ['Keep it in a tab of its own: right-click the tab and choose “Pin tab”'],
        more: 'Firefox on a computer installs no apps. It rings while the browser is open.',
      },
    } satisfies Record<Platform, Steps> as Record<Platform, Steps>,
  },
};
