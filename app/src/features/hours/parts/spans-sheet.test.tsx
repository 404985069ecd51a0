import type { Span } from '@porch/core/hours/opening';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { spansInWords } from './in-words';
import { SpansSheet } from './spans-sheet';

// A test has no window to be as wide as, nor one in which a key is pressed.
jest.mock('../../../kit/theme/use-wide', () => ({ useWide: () => false }));
jest.mock('../../../kit/sheets/use-escape', () => ({ useEscape: () => undefined }));
jest.mock('../../../kit/sheets/use-dialog-name', () => ({ useDialogName: () => undefined }));
// The platform's picker, as far as it is one: a field with a label.
jest.mock('../../../kit/fields/moment-field', () => {
  const { TextInput } = jest.requireActual<typeof import('react-native')>('react-native');
  return {
    MomentField: (props: { label: string; value: string; onChange: (value: string) => void }) => (
      <TextInput aria-label={props.label} value={props.value} onChangeText={props.onChange} />
    ),
  };
});

const draw = async (spans: Span[], weekday?: number) => {
  const taken: [Span[], readonly number[]][] = [];
  await render(
    <SpansSheet
      title="Thursday"
      spans={spans}
      weekday={weekday}
      close={() => undefined}
      take={(...what) => taken.push(what)}
    />,
  );
  return taken;
};
const type = (label: string, time: string) =>
  fireEvent.changeText(screen.getByLabelText(label), time);
const take = () => fireEvent.press(screen.getByText('Take over'));

describe('the exact times of a day', () => {
  it('are taken over with the days that have the same', async () => {
    const taken = await draw([{ from: 540, to: 1_050 }], 3);
    await type('Shuts', '12:20');
    await fireEvent.press(screen.getByText('Monday to Friday'));
    await take();
    expect(taken).toEqual([[[{ from: 540, to: 740 }], [0, 1, 2, 4, 3]]]);
  });

  it('end on the next day where the end is not after the beginning, and at midnight where it is 00:00', async () => {
    const taken = await draw([{ from: 540, to: 1_050 }]);
    await type('Shuts', '02:00');
    expect(screen.getByText('Ends on the next day.')).toBeTruthy();
    await type('Shuts', '00:00');
    await take();
    expect(taken[0]?.[0]).toEqual([{ from: 540, to: 1_440 }]);
  });

  it('say that overlapping spans count as one, and are taken over as one', async () => {
    const taken = await draw([{ from: 540, to: 720 }]);
    await fireEvent.press(screen.getByText('Add a span'));
    await type('Opens (2)', '11:00');
    await type('Shuts (2)', '15:00');
    expect(screen.getByText('These overlap and count as one.')).toBeTruthy();
    await take();
    expect(taken[0]?.[0]).toEqual([{ from: 540, to: 900 }]);
  });

  it('are not taken over half, and nothing is lost of what stands there', async () => {
    const taken = await draw([{ from: 540, to: 720 }]);
    await type('Opens', '');
    await take();
    expect(screen.getByText('Give both times, or take the span away.')).toBeTruthy();
    expect(taken).toEqual([]);
    await type('Opens', '10:00');
    await take();
    expect(taken[0]?.[0]).toEqual([{ from: 600, to: 720 }]);
  });

  it('can be none, and the whole day', async () => {
    const taken = await draw([{ from: 540, to: 720 }]);
    await fireEvent.press(screen.getByText('Shut all day'));
    await take();
    await fireEvent.press(screen.getByText('Open all day'));
    await take();
    expect(taken.map(([spans]) => spans)).toEqual([[], [{ from: 0, to: 1_440 }]]);
  });
});

describe('spans in words', () => {
  it('say times as a clock shows them, and what goes on past midnight', () => {
    expect(spansInWords([])).toBe('Shut');
    expect(spansInWords([{ from: 0, to: 1_440 }])).toBe('Open all day');
    expect(
      spansInWords([
        { from: 540, to: 750 },
        { from: 1_320, to: 1_560 },
      ]),
    ).toBe('09:00–12:30, 22:00–02:00 next day');
  });
});
