import { type PointerEvent, useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Problem, Row } from '../../kit/fields/form';
import { Button } from '../../kit/press';
import { Sheet } from '../../kit/sheets/sheet';
import { Text } from '../../kit/text';
import { corner } from '../../kit/theme/sizes';
import { useTheme } from '../../kit/theme/use-theme';
import { shellWords } from '../words';
import type { Cut } from './cutting';
import { type Cutting, cutOf, firstCutting, moved, zoomed } from './cutting';

const VIEW = 260;
const KEY_STEP = 12;
/** A press that moves less than this is a tap. */
const TAP_PX = 4;

const arrows: Record<string, readonly [number, number]> = {
  ArrowLeft: [-KEY_STEP, 0],
  ArrowRight: [KEY_STEP, 0],
  ArrowUp: [0, -KEY_STEP],
  ArrowDown: [0, KEY_STEP],
};

/** Cuts a square out of a picture: by drawing, by tapping its middle, or by keys. */
export const CropSheet = (props: {
  picture: File;
  shape: 'round' | 'square';
  close: () => void;
  take: (cut: Cut) => void;
}) => {
  const theme = useTheme();
  const [url, setUrl] = useState('');
  const [cutting, setCutting] = useState<Cutting | null>(null);
  const [isWrong, setWrong] = useState(false);
  const drag = useRef<{ x: number; y: number; hasMoved: boolean } | null>(null);

  useEffect(() => {
    const made = URL.createObjectURL(props.picture);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [props.picture]);

  const change = (next: (now: Cutting) => Cutting): void => setCutting((now) => now && next(now));

  const drawTo = (event: PointerEvent): void => {
    const from = drag.current;
    if (!from) return;
    const [dx, dy] = [event.clientX - from.x, event.clientY - from.y];
    if (!from.hasMoved && Math.hypot(dx, dy) < TAP_PX) return;
    drag.current = { x: event.clientX, y: event.clientY, hasMoved: true };
    change((now) => moved(now, -dx, -dy, VIEW));
  };

  const letGo = (event: PointerEvent<HTMLButtonElement>): void => {
    const from = drag.current;
    drag.current = null;
    if (!from || from.hasMoved) return;
    const box = event.currentTarget.getBoundingClientRect();
    const [dx, dy] = [event.clientX - box.left - VIEW / 2, event.clientY - box.top - VIEW / 2];
    change((now) => moved(now, dx, dy, VIEW));
  };

  const scale = cutting ? VIEW / cutting.side : 1;
  return (
    <Sheet title={shellWords().crop.title} close={props.close}>
      <Text kind="second" tone="slate">
        {shellWords().crop.more}
      </Text>
      {isWrong ? <Problem text={shellWords().crop.wrong} /> : null}
      <View style={styles.middle}>
        <button
          type="button"
          aria-label={shellWords().crop.area}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            drag.current = { x: event.clientX, y: event.clientY, hasMoved: false };
          }}
          onPointerMove={drawTo}
          onPointerUp={letGo}
          onKeyDown={(event) => {
            const step = arrows[event.key];
            if (!step) return;
            event.preventDefault();
            change((now) => moved(now, step[0], step[1], VIEW));
          }}
          style={{
            position: 'relative',
            width: VIEW,
            height: VIEW,
            overflow: 'hidden',
            touchAction: 'none',
            cursor: 'move',
            borderRadius: props.shape === 'round' ? VIEW / 2 : corner,
            padding: 0,
            background: 'none',
            border: `2px solid ${theme.ink}`,
          }}
        >
          {url ? (
            <img
              src={url}
              alt=""
              draggable={false}
              onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
                setCutting(firstCutting(naturalWidth, naturalHeight))
              }
              onError={() => setWrong(true)}
              style={
                cutting
                  ? {
                      position: 'absolute',
                      width: cutting.width * scale,
                      left: -cutting.left * scale,
                      top: -cutting.top * scale,
                      maxWidth: 'none',
                    }
                  : { visibility: 'hidden' }
              }
            />
          ) : null}
        </button>
      </View>
      <Row>
        <Button
          label={shellWords().crop.closer}
          onPress={() => change((now) => zoomed(now, 1.25))}
        />
        <Button
          label={shellWords().crop.farther}
          onPress={() => change((now) => zoomed(now, 0.8))}
        />
      </Row>
      <Button
        look="main"
        label={shellWords().crop.take}
        disabled={!cutting}
        onPress={() => cutting && props.take({ picture: props.picture, crop: cutOf(cutting) })}
      />
    </Sheet>
  );
};

const styles = StyleSheet.create({ middle: { alignItems: 'center' } });
