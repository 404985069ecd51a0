import { useLocalSearchParams } from 'expo-router';
import { ScrollView, StyleSheet, Text } from 'react-native';

/** What stands behind a row: twenty lines, and nothing else. */
const Behind = () => {
  const { row } = useLocalSearchParams<{ row: string }>();
  return (
    <ScrollView style={styles.whole}>
      {Array.from({ length: 20 }, (_, at) => (
        <Text key={`line-${String(at)}`} style={styles.line}>
          {`What stood at ${at} before row ${row}`}
        </Text>
      ))}
    </ScrollView>
  );
};

const styles = StyleSheet.create({
  whole: { flex: 1 },
  line: { padding: 12 },
});

export default Behind;
