import type { CSSProperties } from 'react';

/** A picture as the browser shows it: with its alternative text, loaded when it comes into sight. */
export const Photo = (props: { source: string; alt: string; style: CSSProperties }) => (
  <img
    src={props.source}
    alt={props.alt}
    loading="lazy"
    draggable={false}
    style={{ display: 'block', ...props.style }}
  />
);
