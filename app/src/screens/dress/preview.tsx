import type { DoorConfiguration } from '@porch/contract/visitor';
import type { DoorView } from '@porch/core/dress';
import { useEffect, useRef, useState } from 'react';
import { useWindowDimensions, View } from 'react-native';
import { useTheme } from '../../theme/use-theme';
import { useWide } from '../../theme/use-wide';
import { words } from '../../wording';

const sizes = { phone: { width: 390, height: 720 }, wide: { width: 1_100, height: 720 } };
const TOLD_AFTER_MS = 150;
/** What stands above the preview on a wide screen, in pixels. */
const ABOVE = 200;

/** The real plate and the real panel in a frame, drawn from the draft, made to fit the room there is. */
export const Preview = (props: {
  publicId: string;
  size: 'phone' | 'wide';
  isOpen: boolean;
  configuration: DoorConfiguration;
  view: DoorView;
}) => {
  const theme = useTheme();
  const frame = useRef<HTMLIFrameElement>(null);
  const [room, setRoom] = useState(0);
  const [isReady, setReady] = useState(false);
  const { configuration, view, isOpen } = props;
  const size = sizes[props.size];
  const isWide = useWide();
  const { height } = useWindowDimensions();
  const fits = room > 0 ? Math.min(1, room / size.width) : 1;
  // On a wide screen the whole of it is in sight; on a phone it is as large as it is wide.
  const scale = isWide ? Math.min(fits, Math.max(0.5, (height - ABOVE) / size.height)) : fits;

  useEffect(() => {
    const hear = (event: MessageEvent): void => {
      if (event.origin !== location.origin || event.source !== frame.current?.contentWindow) return;
      if (event.data?.porch === 'preview-ready') setReady(true);
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, []);

  useEffect(() => {
    if (!isReady) return;
    const timer = setTimeout(() => {
      const draft = { porch: 'draft', configuration, view, isOpen };
      frame.current?.contentWindow?.postMessage(draft, location.origin);
    }, TOLD_AFTER_MS);
    return () => clearTimeout(timer);
  }, [isReady, configuration, view, isOpen]);

  return (
    <View
      onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)}
      style={{ height: size.height * scale + 4, overflow: 'hidden' }}
    >
      <iframe
        ref={frame}
        title={words.dress.previewFrame}
        src={`/door/${props.publicId}/preview`}
        style={{
          width: size.width,
          height: size.height,
          boxSizing: 'border-box',
          border: `2px solid ${theme.edge}`,
          transform: `scale(${scale})`,
          transformOrigin: 'top left',
          flex: 'none',
        }}
      />
    </View>
  );
};
