import { shippedLanguages, textsIn } from '../../door-texts';
import { fillGaps } from '../../door-texts/fill';
import { segmentsOf } from '../../segments';
import { fern, offer, onShelf, page, picture, place, shelfNow, slots } from '../../test-kit/shelf';
import type { ShelfThing } from '..';
import { allFiles, shelfInPlainText, wholeText } from '../plain';
import { toShelfSaid } from '.';

const photo = { id: 'file-0000001', name: 'fern.jpg', type: 'image/jpeg', sizeBytes: 9 } as never;
const said = (thing: ShelfThing, language = 'en', now = shelfNow) =>
  toShelfSaid({ ...thing, id: 'thing-000001' }, [photo], {
    language,
    country: 'GB',
    zone: 'Europe/London',
    now,
    say: (key, values = {}) => fillGaps(textsIn(language)[key], values),
  });

describe('something of the shelf as it is said', () => {
  it.each([
    [fern, ['£14.50 · In stock', fern.text]],
    [offer, [offer.text, 'Code BULB10', 'Until Saturday 14 November, 10:00']],
    [place, [place.address, place.hours, place.text]],
    [page, [page.text]],
    [picture, [picture.text]],
    [
      slots,
      [
        '30 minutes · The greenhouse, 4 Canal Row',
        '– Friday 13 November, 10:00',
        '– Friday 13 November, 12:00',
        slots.text,
      ],
    ],
  ])('has the lines of its kind: $kind', (thing, lines) => {
    expect(said(thing)).toMatchObject({
      kind: thing.kind,
      name: thing.name,
      lines,
      files: [photo],
    });
  });

  it('names only times that are still to come', () => {
    const [first = 0] = slots.starts;
    expect(said(slots, 'en', first).lines.filter((line) => line.startsWith('–'))).toEqual([
      '– Friday 13 November, 12:00',
    ]);
  });

  it('has an offer last a day where its last moment is that of a day, by the business’s clocks', () => {
    const until = Date.UTC(2026, 10, 14, 23, 59, 59, 999);
    expect(said({ ...offer, until }).lines.at(-1)).toBe('Until Saturday 14 November');
    expect(said({ ...offer, until: null }).lines).toEqual([offer.text, 'Code BULB10']);
  });

  it('is said in the language of whoever reads it, in all that there are', () => {
    expect(said({ ...fern, price: '1299.00', currency: 'EUR' }, 'de').lines[0]).toBe(
      '1.299\u00a0€ · Vorrätig',
    );
    for (const language of shippedLanguages) {
      const all = onShelf.flatMap((thing) => said(thing, language).lines).join('\n');
      expect(all).not.toMatch(/[{}]|undefined/);
      if (language !== 'en') expect(all).not.toMatch(/In stock|Sold out|Until /);
    }
  });

  it('without a price, a stock or words has no empty line', () => {
    const bare = { ...fern, price: '', currency: '', stock: '' as const, text: '' };
    expect(said(bare).lines).toEqual([]);
    expect(said({ ...bare, stock: 'to-order' }).lines).toEqual(['Can be ordered']);
  });

  it('is paragraphs behind the answer where only words can be shown, its link at its end', () => {
    const shelf = [said(page), said(place)];
    expect(wholeText({ text: 'Here you are.', shelf })).toBe(
      [
        'Here you are.',
        '',
        'How to repot',
        'In six pictures.',
        'https://quillfern.example/repotting',
        '',
        'The greenhouse',
        place.address,
        place.hours,
        place.text,
        `The way there: ${place.link}`,
      ].join('\n'),
    );
    expect(wholeText({ text: '', shelf: [said({ ...page, link: '', text: '' })] })).toBe(
      'How to repot',
    );
    expect(wholeText({ text: 'Hello' })).toBe('Hello');
    expect(shelfInPlainText(said({ ...place, link: '' }))).not.toContain('The way there');
  });

  it('has no sign in it that would make a text message dearer, but for what the owner wrote', () => {
    for (const thing of [{ ...fern, name: 'Fern' }, offer, page, picture, slots]) {
      expect(segmentsOf(shelfInPlainText(said(thing)))).toMatchObject({ encoding: 'alphabet' });
    }
    const price = { price: '1299.00', currency: 'EUR' };
    const german = shelfInPlainText(said({ ...fern, ...price, name: 'Farn' }, 'de'));
    expect(segmentsOf(german).encoding).toBe('alphabet');
    expect(german).toContain('1.299 €, Vorrätig');
    expect(shelfInPlainText(said(slots))).toContain(
      '30 minutes, The greenhouse, 4 Canal Row\n- Fri',
    );
  });

  it('has its files behind those of the answer', () => {
    const other = { id: 'file-0000002' } as never;
    expect(allFiles({ files: [other], shelf: [said(fern)] })).toEqual([other, photo]);
    expect(allFiles({ files: [other] })).toEqual([other]);
  });
});
