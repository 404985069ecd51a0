import type { DoorConfiguration } from '@porch/contract/visitor';
import type { DoorView } from '@porch/core/dress';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet, useWindowDimensions, View } from 'react-native';
import { Choice } from '../../../kit/fields/choice';
import { Text } from '../../../kit/text';
import { useTheme } from '../../../kit/theme/use-theme';
import { useWide } from '../../../kit/theme/use-wide';
import { words } from '../words';

export type ScreenShown = 'phone' | 'wide';

/** A phone as most are held, and the narrowest large screen that is of interest, in CSS pixels. */
const PHONE = { width: 390, height: 720 };
const WIDE = { width: 1_100, height: 720 };
const GAP = 16;
const TOLD_AFTER_MS = 150;
/** What stands above the preview on a wide screen, in pixels. */
const ABOVE = 230;

interface Drawn {
  publicId: string;
  configuration: DoorConfiguration;
  view: DoorView;
}

/** The real plate and the real panel in a frame, drawn from the draft. */
const Scene = (
  props: Drawn & { title: string; isOpen: boolean; width: number; height: number; scale: number },
) => {
  const theme = useTheme();
  const frame = useRef<HTMLIFrameElement>(null);
  const [isReady, setReady] = useState(false);
  const { configuration, view, isOpen, width, height, scale } = props;

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
    <View style={{ width: width * scale, height: height * scale, overflow: 'hidden' }}>
      <iframe
        ref={frame}
        title={props.title}
        src={`/door/${props.publicId}/preview?door=${isOpen ? 'open' : 'closed'}`}
        style={{
          width,
          height,
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

const OpenOrClosed = (props: { isOpen: boolean; setOpen: (isOpen: boolean) => void }) => (
  <Choice
    label={words().doorIs}
    isLabelHidden
    options={[
      ['open', words().opened.open],
      ['closed', words().opened.closed],
    ]}
    value={props.isOpen ? 'open' : 'closed'}
    onChange={(value) => props.setOpen(value === 'open')}
  />
);

/** What the plate on a phone costs the page around it. */
const PlateOnPhones = ({ view }: { view: DoorView }) => (
  <Text kind="second" tone={view.look.onPhones === 'small' ? 'slate' : 'ember'} role="note">
    {view.look.onPhones === 'small' ? words().plateIsSmall : words().plateIsLarge}
  </Text>
);

/**
 * The door as visitors see it, made to fit the room there is. Where two phones fit beside one another, one shows
 * the door closed and one open: nobody has to choose.
 */
export const Preview = (
  props: Drawn & { size: ScreenShown; isOpen: boolean; setOpen: (isOpen: boolean) => void },
) => {
  const [room, setRoom] = useState(0);
  const isWide = useWide();
  const { height: windowHeight } = useWindowDimensions();
  const { size, isOpen, setOpen, ...drawn } = props;
  const left = isWide ? Math.max(PHONE.height / 2, windowHeight - ABOVE) : Number.POSITIVE_INFINITY;

  if (size === 'wide') {
    const scale = room > 0 ? Math.min(1, room / WIDE.width) : 1;
    const width = Math.max(WIDE.width, room);
    const height = isWide ? left / scale : WIDE.height;
    return (
      <View onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)} style={styles.all}>
        <OpenOrClosed isOpen={isOpen} setOpen={setOpen} />
        <Scene
          key={isOpen ? 'open' : 'closed'}
          {...drawn}
          title={words().previewFrame}
          isOpen={isOpen}
          width={width}
          height={height}
          scale={scale}
        />
      </View>
    );
  }
  const fitsTwo = isWide && room >= PHONE.width * 1.4 + GAP;
  const scale = fitsTwo
    ? Math.min(1, (room - GAP) / 2 / PHONE.width)
    : Math.min(1, room > 0 ? room / PHONE.width : 1);
  const height = isWide ? Math.max(560, left / scale) : PHONE.height;
  const phone = { ...drawn, width: PHONE.width, height, scale };
  return (
    <View onLayout={({ nativeEvent }) => setRoom(nativeEvent.layout.width)} style={styles.all}>
      {fitsTwo ? null : <OpenOrClosed isOpen={isOpen} setOpen={setOpen} />}
      <View style={styles.beside}>
        {fitsTwo || !isOpen ? (
          <Scene {...phone} title={words().closedFrame} isOpen={false} />
        ) : null}
        {fitsTwo || isOpen ? <Scene {...phone} title={words().previewFrame} isOpen /> : null}
      </View>
      {fitsTwo || !isOpen ? <PlateOnPhones view={props.view} /> : null}
    </View>
  );
};

const styles = StyleSheet.create({
  all: { gap: 8 },
  beside: { flexDirection: 'row', gap: GAP },
});
