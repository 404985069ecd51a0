import type { Sound } from '@porch/core/ringing';
import { isChosen } from '../session/choices';

/** One note: its pitch in hertz, when it begins and how long it rings, in seconds, and of what form it is. */
interface Note {
  pitch: number;
  after: number;
  lasts: number;
  form: OscillatorType;
}

const note = (pitch: number, after: number, lasts = 0.9, form: OscillatorType = 'triangle') => ({
  pitch,
  after,
  lasts,
  form,
});

/** Our own sounds: two falling notes, a knuckle on wood, and a small bell that is struck twice. */
const notesOf: Record<Sound, readonly Note[]> = {
  'two-notes': [note(659.25, 0), note(523.25, 0.22)],
  'wooden-knock': [
    note(196, 0, 0.09, 'square'),
    note(185, 0.16, 0.09, 'square'),
    note(196, 0.42, 0.1, 'square'),
  ],
  'small-bell': [
    note(1174.7, 0, 1.2, 'sine'),
    note(2349.3, 0, 0.5, 'sine'),
    note(1174.7, 0.35, 1.2, 'sine'),
  ],
};

const LOUDEST = 0.2;
const SILENT = 0.0001;

let audio: AudioContext | null = null;

const play = (context: AudioContext, { pitch, after, lasts, form }: Note): void => {
  const tone = context.createOscillator();
  const volume = context.createGain();
  const start = context.currentTime + after;
  tone.frequency.value = pitch;
  tone.type = form;
  volume.gain.setValueAtTime(SILENT, start);
  volume.gain.exponentialRampToValueAtTime(LOUDEST, start + 0.02);
  volume.gain.exponentialRampToValueAtTime(SILENT, start + lasts);
  tone.connect(volume).connect(context.destination);
  tone.start(start);
  tone.stop(start + lasts + 0.1);
};

/** Plays a sound. Browsers stay silent until the page was touched once. */
export const playSound = (sound: Sound): void => {
  if (typeof AudioContext === 'undefined') return;
  audio ??= new AudioContext();
  const context = audio;
  const playAll = (): void => {
    for (const one of notesOf[sound]) play(context, one);
  };
  if (context.state === 'suspended') context.resume().then(playAll, () => undefined);
  else playAll();
};

/** Rings for a new message, if this device wants to hear it and its owner any sound at all. */
export const ring = (sound: Sound | null): void => {
  if (sound && isChosen('sound')) playSound(sound);
};
