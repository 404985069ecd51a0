import type { Row } from '@porch/contract/entries';
import { markOf } from '@porch/core/calling';
import { emptyConversation } from '@porch/core/conversation';
import { QueryClientProvider } from '@tanstack/react-query';
import { render, screen } from '@testing-library/react-native';
import { clientForTest } from '../../../../test-kit/client';
import { RowName } from './row-name';

const draw = (name: string) => {
  const row: Row = {
    id: 'conversation-1',
    doorId: 'door-1',
    group: 'waiting',
    place: 0,
    dueAt: null,
    state: { ...emptyConversation, name, zone: 'Europe/Lisbon' },
    threads: [],
  };
  return render(
    <QueryClientProvider client={clientForTest({ enabled: false })}>
      <RowName row={row} />
    </QueryClientProvider>,
  );
};
const drawn = (): string => JSON.stringify(screen.toJSON());

describe('somebody in a list', () => {
  it('without a name is called by what is known, and has a mark of their own', async () => {
    await draw('');
    expect(screen.getByText('Visitor, Lisbon time')).toBeTruthy();
    expect(drawn()).toContain(markOf('conversation-1'));
  });

  it('with a name has that and no mark', async () => {
    await draw('Wren Ashdown');
    expect(screen.getByText('Wren Ashdown')).toBeTruthy();
    expect(drawn()).not.toContain(markOf('conversation-1'));
  });
});
