import { lampAt } from '@porch/core/lamp';
import { mailAddress } from '@porch/core/links/mail';
import { aheadIn, minutesIn, momentIn } from '@porch/core/when';
import { placeGlyphs } from '../glyphs';
import { clockTime } from './clock-time';
import { Face } from './face';
import type { Model } from './model';

import { useSay, useView } from './view';

const FACES_MOST = 3;

/** What the light shows, as the texts call it. */
export type State = 'lit' | 'soon' | 'dark';

export interface LampShown {
  state: State;
  /** The time that the texts may name. */
  time: string;
  /** When somebody is back, by this device's clock; null: they are, or nobody can tell. */
  back: number | null;
}

/** The light as it is shown at a moment of this device's clock, UTC epoch milliseconds. */
export const lampOf = (model: Model, now: number, locale: string): LampShown => {
  const { state, until } = lampAt(model.lamp, now + model.offsetMs);
  if (state === 'lit') return { state, time: '', back: null };
  const back = until === null ? null : until - model.offsetMs;
  if (state === 'dark' || back === null) return { state: 'dark', time: '', back };
  return { state: 'soon', time: clockTime(back, locale), back };
};

/** When somebody is back, or how long an answer usually takes while somebody is in; empty: nobody can tell. */
export const useWhen = (lamp: LampShown, usual: number | null, now: number): string => {
  const { language, locale } = useView();
  const say = useSay();
  if (lamp.back !== null) {
    const time = momentIn({ locale }, lamp.back, now);
    return say('back', { time, ahead: aheadIn(language, lamp.back - now) });
  }
  if (lamp.state !== 'lit' || usual === null) return '';
  return say('usual', { span: minutesIn(language, usual) });
};

/** When it is open in the days that come, by this device's clock. */
export const Opens = ({ opens, offsetMs }: Pick<Model, 'opens' | 'offsetMs'>) => {
  const { locale } = useView();
  const say = useSay();
  if (opens.length === 0) return null;
  return (
    <section class="opens">
      <h2>{say('hours')}</h2>
      <ul>
        {opens.map(([from, to]) => (
          <li key={from}>
            {new Date(from - offsetMs).toLocaleDateString(locale, {
              weekday: 'long',
              day: 'numeric',
              month: 'short',
            })}
            {' \u00b7 '}
            {clockTime(from - offsetMs, locale)}\u2013{clockTime(to - offsetMs, locale)}
          </li>
        ))}
      </ul>
    </section>
  );
};

/** Other places where the business is to be found. */
const Places = () => {
  const { links } = useView();
  if (links.length === 0) return null;
  return (
    <ul class="places">
      {links.map(({ glyph, label, url }) => (
        <li key={url}>
          <a href={url} target="_blank" rel="noopener noreferrer">
            <svg viewBox="0 0 24 24" aria-hidden="true">
              <path d={placeGlyphs[glyph]} />
            </svg>
            <span dir="auto">{label}</span>
          </a>
        </li>
      ))}
    </ul>
  );
};

/** Who answers here. */
const People = () => {
  const people = useView().business.people.slice(0, FACES_MOST);
  if (people.length === 0) return null;
  return (
    <ul class="people">
      {people.map((person) => (
        <li key={person.name}>
          <Face name={person.name} url={person.face} />
          <span dir="auto">{person.name}</span>
        </li>
      ))}
    </ul>
  );
};

/** Where else the business is to be found, and by which address while nobody is in. */
const Elsewhere = ({ state }: { state: State }) => {
  const { address } = useView().business;
  const say = useSay();
  return (
    <>
      <Places />
      {state !== 'lit' && address && (
        <p class="sign">
          <a href={mailAddress(address)}>{say('write', { address })}</a>
        </p>
      )}
    </>
  );
};

/** Who answers here, and where else they are to be found: what the welcome said, once it has made room. */
export const About = ({ state }: { state: State }) => (
  <>
    <People />
    <Elsewhere state={state} />
  </>
);

/** With what somebody is met who has not written yet. */
export const Welcome = (props: {
  lamp: LampShown;
  usual: number | null;
  now: number;
  /** Nobody takes a note. */
  isHoursOnly: boolean;
}) => {
  const { lamp, usual, now } = props;
  const say = useSay();
  const when = useWhen(lamp, usual, now);
  return (
    <>
      <People />
      <p class="sign" dir="auto">
        {props.isHoursOnly ? say('hoursOnly') : say(`sign.${lamp.state}`, { time: lamp.time })}
      </p>
      {when && (
        <p class="sign" dir="auto">
          {when}
        </p>
      )}
      <Elsewhere state={lamp.state} />
    </>
  );
};
