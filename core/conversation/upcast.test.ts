import { BODY_SHAPE, entryKinds, type Happening, toToday } from '.';

describe('what was written in an older shape', () => {
  it('went to a screen, while there was nothing else', () => {
    const body = { kind: 'team-said', memberId: 'm', text: 'Until six', files: [] };
    expect(toToday(body, 1)).toEqual({ ...body, way: 'screen' });
    expect(toToday({ ...body, way: 'mail' }, BODY_SHAPE)).toEqual({ ...body, way: 'mail' });
  });

  it('is as it was where nothing of its kind has changed', () => {
    const body: Happening = { kind: 'put-by', memberId: 'm', until: 5 };
    expect(toToday(body, 1)).toEqual(body);
    expect(entryKinds).toContain('bygone');
  });

  it.each([
    ['a kind that is not known any more', { kind: 'chimed', loudness: 3 }, 1],
    ['a shape that is not known yet', { kind: 'team-said', text: 'x' }, BODY_SHAPE + 1],
  ])('is kept as something that happened where it has %s', (_name, body, shape) => {
    expect(toToday(body, shape)).toEqual({ kind: 'bygone', was: body.kind });
  });
});
