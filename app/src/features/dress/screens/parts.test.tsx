import { type Dress, plainDress } from '@porch/core/dress';
import { QueryClientProvider } from '@tanstack/react-query';
import { act, fireEvent, render, screen, within } from '@testing-library/react-native';
import { type ReactElement, useState } from 'react';
import { clientForTest } from '../../../../test-kit/client';
import { words } from '../words';
import type { Editing, Looked } from './editor';
import { FirstHello } from './first-hello-part';
import { GuestBookPart } from './guest-book-part';
import { LinksPart } from './links-part';
import { LookPart } from './look-part';
import { PeoplePart } from './people-part';
import { WherePart } from './where-part';

/** A part of the dressing room on a draft that it changes, and the draft as it stands. */
const open = async (
  part: (editing: Editing) => ReactElement,
  options: {
    dress?: Dress;
    problems?: Record<string, string>;
    /** What the preview was asked to show, in order. */
    looked?: Partial<Looked>[];
  } = {},
) => {
  const draft = { now: options.dress ?? plainDress() };
  const Bench = () => {
    const [dress, setDress] = useState(draft.now);
    draft.now = dress;
    return part({
      doorId: 'door-0000001',
      dress,
      now: () => draft.now,
      set: setDress,
      problemAt: (field) => options.problems?.[field] ?? '',
      look: (at) => options.looked?.push(at),
    });
  };
  const client = clientForTest({ retry: false });
  client.setQueryData(['countries', ''], { countries: ['GB', 'IE', 'FR'], guess: null });
  client.setQueryData(['greeting-counts', 'door-0000001'], {
    counts: [{ greetingId: 'first-hello', seen: 12, answered: 5 }],
  });
  await render(
    <QueryClientProvider client={client}>
      <Bench />
    </QueryClientProvider>,
  );
  return draft;
};

const press = (name: string) => fireEvent.press(screen.getByText(name));

describe('the first hello', () => {
  it('is said on the days that are ticked; all of them, or none, are each day', async () => {
    const draft = await open((editing) => <FirstHello {...editing} />);
    await fireEvent.press(screen.getByRole('switch', { name: /^Say a first hello/ }));
    expect(draft.now.hello).toMatchObject({ isOn: true, days: [] });
    expect(screen.getByText('Said 12 times; 5 wrote on right after it.')).toBeTruthy();
    const day = (name: string) => fireEvent.press(screen.getByRole('switch', { name }));
    await day('Mon');
    expect(draft.now.hello.days).toEqual([1, 2, 3, 4, 5, 6]);
    await day('Mon');
    expect(draft.now.hello.days).toEqual([]);
  });
});

describe('the look', () => {
  it('starts from ready colours, and tells how legible they are', async () => {
    const draft = await open((editing) => <LookPart {...editing} />);
    await press('Harbour');
    expect(draft.now.look).toMatchObject({ ground: '#EDF3F7', accent: '#1F5673' });
    expect(screen.getByText(/Text \d+\.\d : 1 · button \d+\.\d : 1/)).toBeTruthy();
  });

  it('says beside the colour that it is none, and keeps what was typed', async () => {
    const problems = { 'look.ground': words().problems['colour-unknown']() };
    const draft = await open((editing) => <LookPart {...editing} />, { problems });
    await fireEvent.changeText(screen.getByDisplayValue('#FBF6EC'), 'sky');
    expect(draft.now.look.ground).toBe('sky');
    expect(screen.getByText(/This is no colour/)).toBeTruthy();
    expect(screen.queryByText(/Text \d/)).toBeNull();
  });

  it('chooses shape, side, face and size of text', async () => {
    const draft = await open((editing) => <LookPart {...editing} />);
    const choose = (group: string, name: string) =>
      fireEvent.press(within(screen.getByLabelText(group)).getByText(name));
    for (const name of ['Latch', 'Left', 'Initials']) await press(name);
    await choose('Size of text', 'Large');
    await choose('Size of the open panel', 'Small');
    await choose('Type', 'With serifs');
    await choose('On phones', 'As large as elsewhere');
    expect(draft.now.look).toMatchObject({
      plate: 'latch',
      side: 'left',
      face: 'initials',
      textSize: 'large',
      panel: 'small',
      type: 'serif',
      onPhones: 'usual',
    });
  });
});

describe('the preview', () => {
  it('shows what is being edited: the closed door for its shape, the open one for the panel', async () => {
    const looked: Partial<Looked>[] = [];
    await open((editing) => <LookPart {...editing} />, { looked });
    await press('Latch');
    expect(looked.at(-1)).toEqual({ isOpen: false });
    await fireEvent.press(
      within(screen.getByLabelText('Size of the open panel')).getByText('Large'),
    );
    expect(looked.at(-1)).toEqual({ isOpen: true });
  });

  it('shows the light for which the guest book is written', async () => {
    const looked: Partial<Looked>[] = [];
    await open((editing) => <GuestBookPart {...editing} />, { looked });
    const page = (name: string) => within(screen.getByLabelText(name));
    await fireEvent.press(page('While it is not lit').getByText('Never'));
    expect(looked.at(-1)).toEqual({ lamp: 'dark', isOpen: true });
    await fireEvent.press(page('While the light is lit').getByText('Never'));
    expect(looked.at(-1)).toEqual({ lamp: 'lit', isOpen: true });
  });
});

describe('links to other places', () => {
  it('are added, named, told apart by a glyph, and taken away', async () => {
    const draft = await open((editing) => <LinksPart {...editing} />);
    await press('Add a link');
    await fireEvent.changeText(screen.getByLabelText('What it says'), 'Find us');
    await fireEvent.changeText(screen.getByLabelText('Address'), 'https://a.example/map');
    await press('A map');
    expect(draft.now.links).toEqual([
      { id: expect.any(String), glyph: 'map', label: 'Find us', url: 'https://a.example/map' },
    ]);
    await press('Take Find us away');
    expect(draft.now.links).toEqual([]);
  });
});

describe('the people', () => {
  it('are shown, or the business alone', async () => {
    const draft = await open((editing) => <PeoplePart {...editing} />);
    await press('The business only');
    expect(draft.now.people).toBe('business');
  });
});

describe('where and how', () => {
  it('takes pages one a line, and leaves out empty lines', async () => {
    const dress = plainDress();
    dress.where.pages = { mode: 'only', these: ['/shop'] };
    const draft = await open((editing) => <WherePart {...editing} />, { dress });
    await fireEvent.changeText(screen.getByDisplayValue('/shop'), '/shop/*\n\n/help');
    expect(draft.now.where.pages.these).toEqual(['/shop/*', '/help']);
  });

  it('shows the pages that somebody else chose meanwhile, and not what was typed before', async () => {
    const dress = plainDress();
    dress.where.pages = { mode: 'only', these: ['/shop'] };
    let join = (_these: string[]): void => {};
    await open(
      (editing) => {
        join = (these) =>
          editing.set({
            ...editing.dress,
            where: { ...editing.dress.where, pages: { mode: 'only', these } },
          });
        return <WherePart {...editing} />;
      },
      { dress },
    );
    await fireEvent.changeText(screen.getByDisplayValue('/shop'), '/mine\n');
    expect(screen.getByDisplayValue('/mine\n')).toBeTruthy();
    await act(async () => join(['/theirs', '/too']));
    expect(screen.getByDisplayValue('/theirs\n/too')).toBeTruthy();
  });

  it('takes a country out by its name', async () => {
    const dress = plainDress();
    dress.where.countries = { mode: 'except', these: ['GB', 'FR'] };
    const draft = await open((editing) => <WherePart {...editing} />, { dress });
    await press('Take France out');
    expect(draft.now.where.countries.these).toEqual(['GB']);
  });

  it('adds lines of how it behaves, moves them, and takes them away', async () => {
    const draft = await open((editing) => <WherePart {...editing} />);
    await press('Add a rule');
    await press('Add a rule');
    await fireEvent.changeText(screen.getAllByDisplayValue('*')[1] as never, '/help/*');
    await press('Move up');
    expect(draft.now.where.manners.map(({ pattern }) => pattern)).toEqual(['/help/*', '*']);
    await fireEvent.press(screen.getAllByText('opens by itself')[0] as never);
    expect(draft.now.where.manners[0]).toMatchObject({ pattern: '/help/*', manner: 'open' });
    await fireEvent.press(screen.getAllByText('Take this rule away')[0] as never);
    expect(draft.now.where.manners).toHaveLength(1);
  });
});

describe('the guest book', () => {
  it('asks or does not ask, and needs what is ticked as needed', async () => {
    const draft = await open((editing) => <GuestBookPart {...editing} />);
    await fireEvent.press(screen.getAllByLabelText('Email, needed')[0] as never);
    expect(draft.now.guestBook.lit.asks).toContainEqual({ field: 'email', isRequired: true });
    await fireEvent.press(screen.getAllByLabelText('Ask: Email')[0] as never);
    expect(draft.now.guestBook.lit.asks).toEqual([{ field: 'name', isRequired: false }]);
    await fireEvent.press(screen.getAllByText('Before writing')[1] as never);
    expect(draft.now.guestBook.notLit.when).toBe('before');
  });

  it('takes a question away from every page that asks it', async () => {
    const dress = plainDress();
    dress.guestBook.own = [
      { id: 'which-plant-1', kind: 'text', label: 'Which plant?', choices: [] },
    ];
    dress.guestBook.lit.asks.push({ field: 'which-plant-1', isRequired: false });
    const draft = await open((editing) => <GuestBookPart {...editing} />, { dress });
    await press('Take this question away');
    expect(draft.now.guestBook.own).toEqual([]);
    expect(draft.now.guestBook.lit.asks.map(({ field }) => field)).toEqual(['name', 'email']);
  });

  it('asks a new question wherever anything is asked, and says where it is asked nowhere', async () => {
    const draft = await open((editing) => <GuestBookPart {...editing} />);
    await press('Add a question');
    const [own] = draft.now.guestBook.own;
    for (const which of ['lit', 'notLit'] as const) {
      expect(draft.now.guestBook[which].asks).toContainEqual({ field: own?.id, isRequired: false });
    }
    expect(screen.getByText('Asked: While the light is lit, While it is not lit')).toBeTruthy();
    await fireEvent.press(screen.getAllByText('Never')[0] as never);
    await fireEvent.press(screen.getAllByText('Never')[1] as never);
    expect(screen.getByText(/^Not asked anywhere yet/)).toBeTruthy();
  });

  it('says that a new question lacks its words once somebody has been there, not before', async () => {
    const missing = 'Something is missing here.';
    await open((editing) => <GuestBookPart {...editing} problemAt={() => missing} />);
    const before = screen.queryAllByText(missing).length;
    await press('Add a question');
    expect(screen.queryAllByText(missing)).toHaveLength(before);
    await fireEvent(screen.getByLabelText('Question'), 'blur');
    expect(screen.queryAllByText(missing)).toHaveLength(before + 1);
  });

  it('takes choices one a line', async () => {
    const draft = await open((editing) => <GuestBookPart {...editing} />);
    await press('Add a question');
    await press('A choice');
    await fireEvent.changeText(screen.getByLabelText('Choices, one a line'), 'Fern\n\nPalm');
    expect(draft.now.guestBook.own[0]).toMatchObject({ kind: 'choice', choices: ['Fern', 'Palm'] });
  });

  it('asks for consent with a link to the privacy notice', async () => {
    const draft = await open((editing) => <GuestBookPart {...editing} />);
    await fireEvent.press(screen.getByRole('switch', { name: 'Ask for consent first' }));
    expect(draft.now.consent.isAsked).toBe(true);
    expect(screen.getByText('Link to the privacy notice')).toBeTruthy();
  });
});
