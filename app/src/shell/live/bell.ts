import { isChosen } from '../session/choices';

let audio: AudioContext | null = null;

const note = (context: AudioContext, pitch: number, after: number): void => {
  const tone = context.createOscillator();
  const volume = context.createGain();
  const start = context.currentTime + after;
  tone.frequency.value = pitch;
  tone.type = 'triangle';
  volume.gain.setValueAtTime(0.0001, start);
  volume.gain.exponentialRampToValueAtTime(0.2, start + 0.02);
  volume.gain.exponentialRampToValueAtTime(0.0001, start + 0.9);
  tone.connect(volume).connect(context.destination);
  tone.start(start);
  tone.stop(start + 1);
};

/** Two falling notes, as of a door's bell. Browsers stay silent until the page was touched once. */
export const playBell = (): void => {
  if (typeof AudioContext === 'undefined') return;
  audio ??= new AudioContext();
  const context = audio;
  const play = (): void => {
    note(context, 659.25, 0);
    note(context, 523.25, 0.22);
  };
  if (context.state === 'suspended') context.resume().then(play, () => undefined);
  else play();
};

/** Rings for a new message, if this device wants to hear it. */
export const ring = (): void => {
  if (isChosen('sound')) playBell();
};
