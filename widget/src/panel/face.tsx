import { initials } from '@porch/core/text';

/** Somebody's face, or the letters that stand for it. Beside a name it says nothing of its own. */
export const Face = (props: { name: string; url: string | null; shape?: 'round' | 'square' }) =>
  props.url ? (
    <img class={`face ${props.shape ?? 'round'}`} src={props.url} alt="" width="40" height="40" />
  ) : (
    <span class={`face letters ${props.shape ?? 'round'}`} aria-hidden="true">
      {initials(props.name)}
    </span>
  );
