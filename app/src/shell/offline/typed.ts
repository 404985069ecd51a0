import { keep, kept } from '@porch/client/keeping';
import { useCallback, useState } from 'react';

const PLACES = 'porch:typed';

type Texts = Readonly<Record<string, string>>;

const isTexts = (read: unknown): read is Texts =>
  typeof read === 'object' &&
  read !== null &&
  Object.values(read).every((text) => typeof text === 'string');

const readAll = (): Record<string, Texts> => {
  try {
    const all: unknown = JSON.parse(kept(PLACES) ?? '{}');
    if (typeof all !== 'object' || all === null) return {};
    return Object.fromEntries(Object.entries(all).filter(([, texts]) => isTexts(texts)));
  } catch {
    return {};
  }
};

const write = (place: string, texts: Texts): void => {
  const { [place]: _before, ...others } = readAll();
  const isEmpty = Object.keys(texts).length === 0;
  keep(PLACES, JSON.stringify(isEmpty ? others : { ...others, [place]: texts }));
};

/** The form in which a house begins: nobody is signed in yet, so that it is nobody's to forget. */
export const SET_UP = 'set-up';

/** Nobody is signed in any more: nothing that they typed stays on this device. */
export const forgetTyped = (): void => {
  const setUp = readAll()[SET_UP];
  keep(PLACES, setUp ? JSON.stringify({ [SET_UP]: setUp }) : '');
};

/**
 * What somebody types into a form: what is saved, with what they changed of it and have not saved yet. That stays on this
 * device, over a reload and over leaving, until it is saved or is as it was. Not for passwords.
 */
export const useTyped = <Fields extends Texts>(place: string, saved: Fields) => {
  const [changed, setChanged] = useState<Texts>(() => readAll()[place] ?? {});
  const typed = Object.fromEntries(
    Object.keys(saved).map((field) => [field, changed[field] ?? saved[field] ?? '']),
  ) as { [Field in keyof Fields]: string };
  const set = (change: Partial<Fields>): void => {
    const next = { ...changed, ...change };
    const left = Object.fromEntries(
      Object.entries(next).filter(([field, text]) => text !== undefined && text !== saved[field]),
    ) as Texts;
    write(place, left);
    setChanged(left);
  };
  /** It is saved, or no longer wanted. */
  const drop = useCallback((): void => {
    write(place, {});
    setChanged({});
  }, [place]);
  return { typed, set, drop, isChanged: Object.keys(changed).length > 0 };
};
