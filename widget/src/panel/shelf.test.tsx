import type { ShelfSaid } from '@porch/core/conversation';
import { plainDress, viewOf } from '@porch/core/dress';
import { render } from 'preact';
import { act } from 'preact/test-utils';
import type { Conversation } from './conversation';
import { Shelf } from './shelf';
import { View } from './view';

const business = { name: 'Quillfern', address: '', picture: null, people: [], ways: [] };

const draw = (change: Partial<ShelfSaid>) => {
  const written: string[] = [];
  const said: ShelfSaid = {
    id: 'thing-1',
    kind: 'item',
    name: 'Clay pot',
    lines: [],
    link: '',
    linkWords: '',
    files: [],
    ...change,
  };
  const root = document.createElement('div');
  document.body.replaceChildren(root);
  act(() => {
    render(
      <View.Provider value={viewOf(plainDress(), business, 'en')}>
        <Shelf
          conversation={{} as Conversation}
          said={said}
          open={() => undefined}
          write={(text) => written.push(text)}
        />
      </View.Provider>,
      root,
    );
  });
  return { root, written };
};

describe('what is put in from the shelf, in the panel', () => {
  it('says what a thing costs apart from what else there is to say of it', () => {
    const { root } = draw({ lines: ['£6.50 · In stock', 'Thrown by hand.'] });
    expect(root.querySelector('.price')?.textContent).toBe('£6.50 · In stock');
    expect([...root.querySelectorAll('.words')].map((one) => one.textContent)).toEqual([
      'Thrown by hand.',
    ]);
    expect(
      draw({ kind: 'page', lines: ['How to water.'] }).root.querySelector('.price'),
    ).toBeNull();
  });

  it('gives one thing to do, and says where that leads', () => {
    const { root } = draw({ link: 'https://quillfern.example/pots' });
    expect([...root.querySelectorAll('a')].map((one) => one.textContent)).toEqual([
      'See more quillfern.example/pots',
    ]);
    const place = draw({
      kind: 'place',
      link: 'https://map.example/9',
      linkWords: 'The way there',
    });
    expect(place.root.querySelector('a')?.textContent).toContain('The way there');
    expect(draw({}).root.querySelector('a')).toBeNull();
  });

  it('has a button for each free time, which writes it down and sends nothing', () => {
    const { root, written } = draw({
      kind: 'slots',
      lines: [
        '45 minutes',
        '– Monday 7 December, 09:00',
        '– Tuesday 8 December, 10:30',
        'Bring it.',
      ],
    });
    const buttons = [...root.querySelectorAll('button')];
    expect(buttons.map((one) => one.textContent)).toEqual([
      'Monday 7 December, 09:00',
      'Tuesday 8 December, 10:30',
    ]);
    expect([...root.querySelectorAll('.words')].map((one) => one.textContent)).toEqual([
      '45 minutes',
      'Bring it.',
    ]);
    buttons[1]?.click();
    expect(written).toEqual(['Tuesday 8 December, 10:30, please']);
  });

  it('takes no line of anything else for a time', () => {
    const { root } = draw({ kind: 'offer', lines: ['– ten percent'] });
    expect(root.querySelector('button')).toBeNull();
    expect(root.querySelector('.words')?.textContent).toBe('– ten percent');
  });
});
