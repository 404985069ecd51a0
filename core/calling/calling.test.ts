import fc from 'fast-check';
import { callOf, cityOf, markOf } from '.';

const around = {
  business: 'Quillfern Nursery',
  zone: 'Europe/London',
  sites: ['quillfern.example'],
};
const nobody = { name: '', email: '', phone: '', page: null, zone: '' };
const monstera = {
  url: 'https://quillfern.example/monstera',
  title: 'Monstera deliciosa – Quillfern Nursery',
};

describe('what somebody is called', () => {
  it('is their name, then how they can be reached, then where they are', () => {
    const known = {
      name: 'Wren',
      email: 'w@post.example',
      phone: '+447700900123',
      page: monstera,
      zone: 'Europe/Lisbon',
    };
    expect(callOf(known, around)).toEqual({ by: 'name', what: 'Wren' });
    expect(callOf({ ...known, name: '' }, around)).toEqual({ by: 'email', what: 'w@post.example' });
    expect(callOf({ ...nobody, phone: known.phone }, around).by).toBe('phone');
    expect(callOf({ ...nobody, page: monstera, zone: known.zone }, around)).toEqual({
      by: 'page',
      what: 'Monstera deliciosa',
    });
    expect(callOf({ ...nobody, zone: 'America/Sao_Paulo' }, around)).toEqual({
      by: 'city',
      what: 'Sao Paulo',
    });
  });

  it('says nothing of a clock that is the business’s own, or of none', () => {
    expect(callOf({ ...nobody, zone: 'Europe/London' }, around)).toEqual({ by: 'nothing' });
    expect(callOf({ ...nobody, zone: 'Etc/GMT+3' }, around)).toEqual({ by: 'nothing' });
    expect([cityOf('UTC'), cityOf(''), cityOf('America/Argentina/Buenos_Aires')]).toEqual([
      '',
      '',
      'Buenos Aires',
    ]);
  });

  it('is not taken from the title of a website that is not the owner’s', () => {
    const page = { url: 'https://evil.example/x', title: 'Quillfern Nursery: sign in' };
    expect(callOf({ ...nobody, page }, around)).toEqual({ by: 'page', what: 'evil.example' });
  });
});

describe('a drawn mark', () => {
  it('is the same for the same id, and of strokes on both sides', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 30 }), (id) => {
        expect(markOf(id)).toBe(markOf(id));
        expect(markOf(id).match(/M/g)?.length ?? 0).toBeGreaterThanOrEqual(6);
        for (const [, x] of markOf(id).matchAll(/[ML](\d+)/g))
          expect(Number(x)).toBeLessThanOrEqual(24);
      }),
    );
  });

  it('is another one for nearly every other id', () => {
    const marks = new Set(Array.from({ length: 200 }, (_, index) => markOf(`thread-${index}`)));
    expect(marks.size).toBeGreaterThan(185);
  });
});
