import { router, usePathname } from 'expo-router';
import { type ReactNode, useEffect, useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { useHouse } from '../data/house';
import { useLive } from '../data/live-store';
import { UndoOffer } from '../parts/undo';
import { useKeys } from '../parts/use-keys';
import { Words } from '../parts/words';
import { touch } from '../theme/sizes';
import { useTheme } from '../theme/use-theme';
import { useWide } from '../theme/use-wide';
import { words } from '../wording';
import { KeySheet } from './key-sheet';
import { LampSwitch } from './lamp-switch';
import { Strips } from './strips';

const places = [
  { path: '/line', label: words.places.line },
  { path: '/search', label: words.places.search },
  { path: '/house', label: words.places.house },
] as const;

const Places = () => {
  const theme = useTheme();
  const isWide = useWide();
  const here = usePathname();
  const waiting = useLive().counts?.waiting ?? 0;
  return (
    <View
      role="navigation"
      aria-label={words.places.nav}
      style={isWide ? styles.across : [styles.below, { borderColor: theme.ink }]}
    >
      {places.map(({ path, label }) => {
        const isHere = here.startsWith(path);
        const count = path === '/line' && waiting > 0 ? ` ${waiting}` : '';
        return (
          <Pressable
            key={path}
            role="link"
            aria-current={isHere ? 'page' : undefined}
            onPress={() => router.navigate(path)}
            style={[
              styles.place,
              isWide ? null : styles.grow,
              isWide ? styles.underlined : styles.overlined,
              { borderColor: isHere ? theme.ink : 'transparent' },
            ]}
          >
            <Words kind="label" tone={isHere ? 'ink' : 'slate'}>
              {`${label}${count}`}
            </Words>
          </Pressable>
        );
      })}
    </View>
  );
};

/** The tab's title counts who waits. */
const useTitle = (): void => {
  const business = useHouse().data?.business?.name;
  const waiting = useLive().counts?.waiting ?? 0;
  useEffect(() => {
    const name = business ? `${business} · ${words.name}` : words.name;
    document.title = waiting > 0 ? words.newMessage(waiting, name) : name;
    return () => {
      document.title = words.name;
    };
  }, [business, waiting]);
};

/** What stands around every screen: the beam with the lamp, the places to go, and what is said in passing. */
export const Frame = ({ children }: { children: ReactNode }) => {
  const theme = useTheme();
  const isWide = useWide();
  const path = usePathname();
  const [isKeysOpen, setKeysOpen] = useState(false);
  const isConversation = path.startsWith('/line/');
  // These two show no title of their own; a screen reader still wants one.
  const titled = places.find((place) => place.path === path && path !== '/house');
  useTitle();
  useKeys({
    '/': () => router.navigate('/search'),
    g: () => router.navigate('/line'),
    h: () => router.navigate('/house'),
    '?': () => setKeysOpen(true),
  });
  return (
    <View style={[styles.whole, { backgroundColor: theme.paper }]}>
      {isWide ? (
        <View role="banner" style={[styles.beam, { borderColor: theme.ink }]}>
          <Words kind="name" style={styles.mark}>
            {words.name}
          </Words>
          <View style={styles.lampWide}>
            <LampSwitch />
          </View>
          <View style={styles.grow} />
          <Places />
        </View>
      ) : isConversation ? null : (
        <View role="banner" style={styles.beamPhone}>
          <LampSwitch />
        </View>
      )}
      <Strips />
      <View role="main" style={styles.main}>
        {titled ? (
          <Words role="heading" aria-level={1} style={styles.unseen}>
            {titled.label}
          </Words>
        ) : null}
        {children}
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
  below: { flexDirection: 'row', borderTopWidth: 2 },
  place: {
    minHeight: touch,
    alignItems: 'center',
    justifyContent: 'center',
    paddingHorizontal: 16,
  },
  overlined: { borderTopWidth: 4 },
  underlined: { borderBottomWidth: 4 },
  grow: { flex: 1 },
  unseen: { position: 'absolute', width: 1, height: 1, overflow: 'hidden', opacity: 0 },
});
