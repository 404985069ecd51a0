import { useTheme } from '../theme/use-theme';

/** A page of ours in a frame, as wide as there is room. */
export const PlainFrame = (props: { title: string; source: string; height: number }) => {
  const theme = useTheme();
  return (
    <iframe
      title={props.title}
      src={props.source}
      style={{
        width: '100%',
        height: props.height,
        boxSizing: 'border-box',
        border: `2px solid ${theme.ink}`,
      }}
    />
  );
};
