export const en = {
  onlyOwner: 'Only an owner can change this.',
  step: (at: number, of: number) => `Step ${at} of ${of}`,
  next: 'Next',
  later: 'Go on later',
  back: 'Back',
  business: {
    title: 'Your business',
    more: 'Visitors see the name and the picture. All of it can be changed later.',
  },
  hours: {
    title: 'When do you answer?',
    more: 'Outside these hours visitors read when you’re back and can leave a message. You can change every day later.',
    weeks: {
      workdays: 'Monday to Friday, 9:00 to 17:30',
      daily: 'Every day, 9:00 to 17:30',
      always: 'Day and night',
    },
    done: 'Your opening hours are set.',
    skip: 'Set them later',
  },
  website: {
    title: 'Your website',
    more: 'Which website should the chat be on? You can add more later. Without one you get a link to send.',
    field: 'Address of your website',
    placeholder: 'quillfern.example',
    none: 'I have no website',
  },
  snippet: {
    title: 'Put the door up',
    more: 'A snippet of code puts it on your website. Choose what fits yours.',
    waiting: 'Not seen on your website yet. This page tells you when it is.',
    skip: 'I do that later',
  },
  test: {
    title: 'Write to yourself',
    more: 'This is what your visitors get. Write something in it, then answer as you will from now on.',
    frame: 'Your door, as a visitor sees it',
    arrived: 'It has arrived. Answer it now.',
    answer: 'Open the conversation',
    done: 'Answered. Everything works.',
    finish: 'Finish',
  },
};
