import type { DoorConfiguration } from '@porch/contract/visitor';
import type { DoorView } from '@porch/core/dress';
import type { SaidGreeting } from '@porch/core/greetings';
import type { Light } from '@porch/core/lamp';

/** A greeting as the panel shows it before what is written. */
export type Greeted = Pick<SaidGreeting, 'id' | 'text' | 'name'>;

/** Who is signed in on a website, as that says: all of it is text, and '' where it says nothing. */
export type SaidPerson = [name: string, email: string, signed: string, signature: string];

/** What the website's page and the panel in its frame tell each other. No message text ever crosses. */
export type ToFrame =
  /** Somebody listens now: a frame that was ready before says so again. */
  | { porch: 'ready' }
  | { porch: 'page'; url: string; title: string }
  /** Whether whoever is on the page opened it, and goes on in it. */
  | { porch: 'shown'; takesFocus: boolean }
  | { porch: 'hidden' }
  /** Shown small beside the plate: the newest answer's first words, and nothing else. */
  | { porch: 'glance' }
  /** Who is signed in on the website, as it says. */
  | { porch: 'person'; person: SaidPerson }
  /** With what they were greeted before they wrote; null: they have put it away. */
  | { porch: 'greeting'; greeting: Greeted | null }
  /** A draft to draw, in a trial and in the dressing room. */
  | { porch: 'view'; view: DoorView }
  /** In the dressing room: what the light is to show. */
  | { porch: 'lamp'; lamp: Light; now: number };

export type FromFrame =
  | { porch: 'ready' }
  | { porch: 'open' }
  | { porch: 'close' }
  | { porch: 'talked' }
  | { porch: 'unread'; count: number }
  | { porch: 'lamp'; lamp: Light; now: number };

/** What the app tells the dressing room's imaginary website, and hears from it. */
export type ToPreview = {
  porch: 'draft';
  configuration: DoorConfiguration;
  view: DoorView;
  isOpen: boolean;
};
export type FromPreview = { porch: 'preview-ready' };
