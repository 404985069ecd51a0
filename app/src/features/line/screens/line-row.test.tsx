import type { Row } from '@porch/contract/entries';
import type { Entry } from '@porch/core/conversation';
import { QueryClientProvider } from '@tanstack/react-query';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { answered, filed as inTalk, rowOf, said as saidAt } from '../../../../test-kit/talk';
import { houseKey } from '../../../shell/session/house';
import { LineRow } from './line-row';

const minute = 60_000;

const filed = (seq: number) => inTalk(seq, 'a', seq * minute);
const said = { ...saidAt(1, 'a', minute), text: 'Is it there?' };
const named: Entry = { ...filed(2), kind: 'details', name: 'Wren Ashdown' };

/** Who is asking, of whom the team is. */
const house = (meId: string) => ({
  me: { id: meId },
  team: [
    { id: 'member-1', name: 'Maren Oduya' },
    { id: 't', name: 'Tobias Ekwall' },
  ],
  doors: [],
});

const draw = async (
  row: Row,
  now: number,
  meId = 'member-1',
  isSelected: boolean | null = null,
) => {
  const client = clientForTest({ enabled: false });
  client.setQueryData(houseKey, house(meId));
  const done: string[] = [];
  const deed = (name: string) => () => {
    done.push(name);
  };
  jest.spyOn(Date, 'now').mockReturnValue(now);
  await render(
    <QueryClientProvider client={client}>
      <LineRow
        row={row}
        isChosen={false}
        isSelected={isSelected}
        select={deed('select')}
        wrapUpAll={deed('wrapUpAll')}
        putByAll={deed('putByAll')}
        takeBackAll={deed('takeBackAll')}
        open={deed('open')}
        wrapUp={deed('wrapUp')}
        putBy={deed('putBy')}
        takeBack={deed('takeBack')}
      />
    </QueryClientProvider>,
  );
  return done;
};

describe('a row of the line', () => {
  afterEach(() => jest.restoreAllMocks());

  it('says who waits, how long they still will, and what they said', async () => {
    await draw(rowOf(said, named), 4 * minute);
    expect(screen.getByLabelText('Wren Ashdown, 7 min left, 1 unread, Is it there?')).toBeTruthy();
  });

  it('says that an answer is late, in words and not by colour alone', async () => {
    await draw(rowOf(said), 20 * minute);
    expect(screen.getByText('9 min late')).toBeTruthy();
  });

  it('says who is on the page now, and what we said last', async () => {
    await draw(
      rowOf(said, { ...filed(2), kind: 'here' }, answered(3, 'a', 3 * minute)),
      4 * minute,
    );
    expect(screen.getByLabelText(/^Visitor, .*on the page now, You: It is$/)).toBeTruthy();
  });

  it('says who of the team said the last thing', async () => {
    const answer = answered(3, 'a', 3 * minute);
    await draw(rowOf(said, answer), 4 * minute, 't');
    expect(screen.getByText('Maren: It is')).toBeTruthy();
    await draw(rowOf(said, { ...answer, memberId: 'left-long-ago' } as Entry), 4 * minute);
    expect(screen.getByText('Us: It is')).toBeTruthy();
  });

  it('says that an answer was not delivered, until it is', async () => {
    const answer = answered(3, 'a', 3 * minute);
    const failed: Entry = {
      ...filed(4),
      kind: 'mailed',
      of: [3],
      to: 'w@post.example',
      failed: 'no-mail',
    };
    await draw(rowOf(said, answer, failed), 4 * minute);
    expect(screen.getByLabelText(/not delivered, You: It is$/)).toBeTruthy();
    await draw(
      rowOf(said, answer, failed, { ...filed(5), kind: 'visitor-has', upTo: 3 }),
      5 * minute,
    );
    expect(screen.queryAllByLabelText(/not delivered/)).toHaveLength(0);
  });

  const tap = (row: Parameters<typeof fireEvent.press>[0]) =>
    fireEvent.press(row, { nativeEvent: {}, preventDefault: () => undefined });

  it('opens when it is pressed, and is selected when it is pressed long', async () => {
    const done = await draw(rowOf(said), 2 * minute);
    const row = screen.getByRole('link', { name: /^Visitor/ });
    await tap(row);
    await fireEvent(row, 'longPress');
    expect(done).toEqual(['open', 'select']);
  });

  it('is ticked and not opened while some are being selected', async () => {
    const done = await draw(rowOf(said), 2 * minute, 'member-1', false);
    const row = screen.getByRole('checkbox', { name: /^Visitor/ });
    expect(row).not.toBeChecked();
    await tap(row);
    expect(done).toEqual(['select']);
    await draw(rowOf(said), 2 * minute, 'member-1', true);
    expect(screen.getAllByRole('checkbox').at(-1)).toBeChecked();
  });
});
