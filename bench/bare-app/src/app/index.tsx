import { useRouter } from 'expo-router';
import { FlatList, Pressable, StyleSheet, Text, View } from 'react-native';

const rows = Array.from({ length: 30 }, (_, at) => ({
  id: `row-${at}`,
  said: `What row ${at} says`,
}));

/** A list of thirty rows with lines behind each, and nothing else: what an app of the platform comes to at the least. */
const Bare = () => {
  const router = useRouter();
  return (
    <View style={styles.whole}>
      <FlatList
        data={rows}
        initialNumToRender={16}
        keyExtractor={({ id }) => id}
        renderItem={({ item }) => (
          <Pressable role="link" onPress={() => router.push(`/${item.id}`)} style={styles.row}>
            <Text>{item.id}</Text>
            <Text>{item.said}</Text>
          </Pressable>
        )}
      />
    </View>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1 },
  row: { minHeight: 72, padding: 12, borderBottomWidth: 1 },
});

export default Bare;
