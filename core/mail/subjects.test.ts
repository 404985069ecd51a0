import { bareSubject } from '.';

describe('what a mail is about', () => {
  it.each([
    ['Two ferns', 'Two ferns'],
    ['Re: Two ferns', 'Two ferns'],
    ['RE: AW: Re[2]: Fwd: Two ferns', 'Two ferns'],
    ['Antw : Two ferns', 'Two ferns'],
    ['Re：Two ferns', 'Two ferns'],
    ['Reservation: two ferns', 'Reservation: two ferns'],
    ['Ferns: re: sizes', 'Ferns: re: sizes'],
    ['Re:', ''],
    ['', ''],
  ])('is of %j %j', (subject, about) => {
    expect(bareSubject(subject)).toBe(about);
  });

  it('is found in time, however often it was answered', () => {
    expect(bareSubject('Re: '.repeat(100_000)).length).toBeGreaterThan(0);
  });
});
