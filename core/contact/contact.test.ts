import { getExampleNumber } from 'libphonenumber-js';
import examples from 'libphonenumber-js/examples.mobile.json';
import { emailKey, phoneKey, toE164, toEmail } from '.';

describe('a phone number', () => {
  it('is kept as E.164, for every country’s example as people write it there (libphonenumber’s examples)', () => {
    const countries = Object.keys(examples) as (keyof typeof examples)[];
    expect(countries.length).toBeGreaterThan(200);
    for (const country of countries) {
      const number = getExampleNumber(country, examples);
      expect([country, toE164(number?.formatNational() ?? '', country)]).toEqual([
        country,
        number?.number,
      ]);
      expect(toE164(number?.formatInternational() ?? '', '')).toBe(number?.number);
    }
  });

  it('belongs to the business’s country when it says no other', () => {
    expect(toE164('07700 900123', 'GB')).toBe('+447700900123');
    expect(toE164('+49 30 901820', 'GB')).toBe('+4930901820');
    expect(toE164('07700 900123', '')).toBeNull();
  });

  it.each(['', 'call me', '12', '0'.repeat(40)])('is not made of nonsense: %s', (typed) => {
    expect(toE164(typed, 'GB')).toBeNull();
  });
});

describe('a mail address', () => {
  it('keeps its name, and its domain in lower case and ASCII', () => {
    expect(toEmail(' Wren@Post.EXAMPLE ')).toBe('Wren@post.example');
    expect(toEmail('wren@bücher.example')).toBe('wren@xn--bcher-kva.example');
  });

  it.each(['', 'wren', 'wren@', '@post.example', 'a b@post.example'])('is not %s', (typed) => {
    expect(toEmail(typed)).toBeNull();
  });
});

describe('what two addresses are compared by', () => {
  it('is the same however they were written', () => {
    const keyOf = (typed: string) => emailKey(toEmail(typed) ?? '');
    expect(keyOf('Wren@POST.example')).toBe(keyOf(' wren@post.example '));
    expect(keyOf('wren@bücher.example')).toBe(keyOf('WREN@xn--bcher-kva.example'));
    expect(phoneKey('07700 900123', 'GB')).toBe(phoneKey('+44 7700 900 123', ''));
    expect(phoneKey('the shop’s', 'GB')).toBe('the shop’s');
  });
});
