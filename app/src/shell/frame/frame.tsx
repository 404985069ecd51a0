import { router, usePathname } from 'expo-router';
import { type ReactNode, useEffect, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { Text } from '../../kit/text';
import { touch } from '../../kit/theme/sizes';
import { useTheme } from '../../kit/theme/use-theme';
import { useWide } from '../../kit/theme/use-wide';
import { wayTo } from '../../kit/way';
import { showBadge } from '../live/alerts';
import { useLive } from '../live/store';
import { useLateFollowUps } from '../session/follow-ups';
import { useHouse } from '../session/house';
import { shellWords } from '../words';
import { KeySheet } from './key-sheet';
import { Strips } from './strips';
import { showOnTab } from './tab-icon';
import { UndoOffer } from './undo';
import { useKeys } from './use-keys';

const paths = ['line', 'follow-ups', 'search', 'house'] as const;
const Places = () => {
  const theme = useTheme();
  const isWide = useWide();
  const here = usePathname();
  const waiting = useLive(({ counts }) => counts.all?.waiting ?? 0);
  const late = useLateFollowUps();
  const counted = { line: waiting, 'follow-ups': late, search: 0, house: 0 };
  return (
    <View
      role="navigation"
      aria-label={shellWords().places.nav}
      style={isWide ? styles.across : [styles.below, { borderColor: theme.ink }]}
    >
      {paths.map((place) => {
        const path = `/${place}` as const;
        const isHere = here.startsWith(path);
        const count = counted[place] > 0 ? ` ${counted[place]}` : '';
        return (
          <Pressable
            key={path}
            {...wayTo(path)}
            aria-current={isHere ? 'page' : undefined}
            style={[
              styles.place,
              isWide ? null : styles.quarter,
              isWide ? styles.underlined : styles.overlined,
              { borderColor: isHere ? theme.ink : 'transparent' },
            ]}
          >
            <Text kind="label" tone={isHere ? 'ink' : 'slate'} style={styles.named}>
              {`${shellWords().places[place]}${count}`}
            </Text>
          </Pressable>
        );
      })}
    </View>
  );
};

/** The tab's title and icon and the app's badge count who waits. */
const useTitle = (): void => {
  const business = useHouse().data?.business?.name;
  const waiting = useLive(({ counts }) => counts.all?.waiting ?? 0);
  useEffect(() => {
    const name = business ? `${business} · ${shellWords().name}` : shellWords().name;
    document.title = waiting > 0 ? shellWords().newMessage(waiting, name) : name;
    showOnTab(waiting);
    showBadge(waiting);
    return () => {
      document.title = shellWords().name;
      showOnTab(0);
    };
  }, [business, waiting]);
};

/** What stands around every screen: the beam with the lamp, the places to go, and what is said in passing. */
export const Frame = (props: { lamp: ReactNode; asked: ReactNode; children: ReactNode }) => {
  const theme = useTheme();
  const isWide = useWide();
  const path = usePathname();
  const [isKeysOpen, setKeysOpen] = useState(false);
  const isConversation = path.startsWith('/line/');
  // These two show no title of their own; a screen reader still wants one.
  const titled = paths.find((place) => `/${place}` === path && place !== 'house');
  useTitle();
  useKeys({
    '/': () => router.navigate('/search'),
    g: () => router.navigate('/line'),
    o: () => router.navigate('/follow-ups'),
    h: () => router.navigate('/house'),
    '?': () => setKeysOpen(true),
  });
  return (
    <View style={[styles.whole, { backgroundColor: theme.paper }]}>
      {isWide ? (
        <View role="banner" style={[styles.beam, { borderColor: theme.ink }]}>
          <Text kind="name" style={styles.mark}>
            {shellWords().name}
          </Text>
          <View style={styles.lampWide}>{props.lamp}</View>
          <View style={styles.grow} />
          <Places />
        </View>
      ) : isConversation ? null : (
        <View role="banner" style={styles.beamPhone}>
          {props.lamp}
        </View>
      )}
      {isWide || !isConversation ? props.asked : null}
      <Strips />
      <View role="main" style={styles.main}>
        {titled ? (
          <Text role="heading" aria-level={1} style={styles.unseen}>
            {shellWords().places[titled]}
          </Text>
        ) : null}
        {props.children}
      </View>
      <UndoOffer />
      {isWide || isConversation ? null : <Places />}
      {isKeysOpen ? <KeySheet close={() => setKeysOpen(false)} /> : null}
    </View>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1 },
  beam: {
    flexDirection: 'row',
    alignItems: 'center',
    gap: 20,
    paddingHorizontal: 20,
    paddingVertical: 8,
    borderBottomWidth: 2,
  },
  beamPhone: { padding: 12, paddingBottom: 4 },
  mark: { letterSpacing: -0.2 },
  lampWide: { width: 360 },
  main: { flex: 1, minHeight: 0 },
  across: { flexDirection: 'row', gap: 4 },
  // At twice the text they stand in two rows.
  below: { flexDirection: 'row', flexWrap: 'wrap', borderTopWidth: 2 },
  place: {
    minHeight: touch,
    alignItems: 'center',
    justifyContent: 'center',
    paddingHorizontal: 16,
  },
  quarter: { flexGrow: 1, paddingHorizontal: 4 },
  named: { textAlign: 'center' },
  overlined: { borderTopWidth: 4 },
  underlined: { borderBottomWidth: 4 },
  grow: { flex: 1 },
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
