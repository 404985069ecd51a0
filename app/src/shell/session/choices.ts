import { keep, kept } from '@porch/client/keeping';
import { create } from 'zustand';

/** What somebody has chosen for this device alone. */
export type Choice = 'sound' | 'shortcuts';

const keyOf = (choice: Choice): string => `porch:${choice}`;

/** On unless it was turned off. */
const readAll = (): Record<Choice, boolean> => ({
  sound: kept(keyOf('sound')) !== 'off',
  shortcuts: kept(keyOf('shortcuts')) !== 'off',
});

const useChoices = create(readAll);

// What is chosen in one tab holds in the others.
if (typeof addEventListener === 'function') {
  addEventListener('storage', () => useChoices.setState(readAll()));
}

export const isChosen = (choice: Choice): boolean => useChoices.getState()[choice];

export const choose = (choice: Choice, isOn: boolean): void => {
  keep(keyOf(choice), isOn ? 'on' : 'off');
  useChoices.setState({ [choice]: isOn });
};

export const useChoice = (choice: Choice): boolean => useChoices((all) => all[choice]);
