import { act, fireEvent, render, screen } from '@testing-library/react-native';
import { useState } from 'react';
import { Pressable, Text } from 'react-native';
import { late } from './late';

const Counter = ({ name }: { name: string }) => {
  const [count, setCount] = useState(0);
  return (
    <Pressable role="button" onPress={() => setCount(count + 1)}>
      <Text>{`${name} ${count}`}</Text>
    </Pressable>
  );
};

const open = () => {
  const load = jest.fn(async () => Counter);
  return { load, Screen: late(load, () => <Text>Coming</Text>) };
};

describe('a screen that comes late', () => {
  it('shows its shape until it is loaded', async () => {
    const { Screen } = open();
    render(<Screen name="a" />);
    expect(screen.getByText('Coming')).toBeTruthy();
    expect(await screen.findByText('a 0')).toBeTruthy();
  });

  it('is there at once where it was loaded ahead, without its shape', async () => {
    const { Screen } = open();
    await Screen.prepare();
    render(<Screen name="a" />);
    expect(screen.getByText('a 0')).toBeTruthy();
    expect(screen.queryByText('Coming')).toBeNull();
  });

  it('keeps what is in it where it is loaded once more meanwhile', async () => {
    const { Screen } = open();
    render(<Screen name="a" />);
    fireEvent.press(await screen.findByText('a 0'));
    await act(() => Screen.prepare());
    screen.rerender(<Screen name="b" />);
    expect(screen.getByText('b 1')).toBeTruthy();
  });

  it('is loaded when it is wanted where that failed ahead of it', async () => {
    const { load, Screen } = open();
    load.mockRejectedValueOnce(new Error('no signal'));
    await expect(Screen.prepare()).rejects.toThrow('no signal');
    render(<Screen name="a" />);
    expect(await screen.findByText('a 0')).toBeTruthy();
  });
});
