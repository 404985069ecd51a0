import { keep, kept } from '@porch/client/keeping';
import { create } from 'zustand';

/** What somebody has chosen for this device alone. */
export type Choice = 'sound' | 'shortcuts';

const keyOf = (choice: Choice): string => `porch:${choice}`;

/** On unless it was turned off. */
const isOn = (choice: Choice): boolean => kept(keyOf(choice)) !== 'off';

const useChoices = create<Record<Choice, boolean>>(() => ({
  sound: isOn('sound'),
  shortcuts: isOn('shortcuts'),
}));

export const isChosen = (choice: Choice): boolean => useChoices.getState()[choice];

export const choose = (choice: Choice, next: boolean): void => {
  keep(keyOf(choice), next ? 'on' : 'off');
  useChoices.setState({ [choice]: next });
};

export const useChoice = (choice: Choice): boolean => useChoices((all) => all[choice]);
