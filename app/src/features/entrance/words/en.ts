export const en = {
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
  join: {
    title: (business: string) => `Join ${business}`,
    more: (role: string) => `You are invited as ${role}.`,
    name: 'Your name',
    email: 'Email',
    emailMore: 'With it you sign in.',
    password: 'Password',
    submit: 'Come in',
    cannot: 'This link cannot be used',
    goIn: 'Go to the entrance',
  },
  newPassword: {
    title: 'A new password',
    more: (name: string) => `For ${name}. Your other devices are signed out.`,
    password: 'New password',
    submit: 'Save and sign in',
  },
  pair: {
    title: 'Signing in',
    more: 'Does the other screen show the same two words? Confirm them there.',
    refused: 'The other screen said that the words differ. You are not signed in.',
    stale: 'This code is used up or too old. Make a new one on the screen that is signed in.',
    noCode:
      'This page is opened by a code. Make one on a screen that is signed in: House, Sign in a phone.',
    toSignIn: 'Sign in with a password',
  },
};
