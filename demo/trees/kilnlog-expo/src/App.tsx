import { CobaltHeron } from '@cobaltheron.example/react-native';
import { StatusBar } from 'expo-status-bar';
import { useEffect, useState } from 'react';
import { SafeAreaView, Text } from 'react-native';
import { KilnList } from './screens/KilnList';

/** The whole app: the kilns of a studio, and what is in them. */
export default function App() {
  const [ready, setReady] = useState(false);

  useEffect(() => {
    const begin = async () => {
      await CobaltHeron.start();
      setReady(true);
    };
    begin();
  }, []);

  return (
    <SafeAreaView>
      <StatusBar style="auto" />
      {ready ? <KilnList /> : <Text>Heating up …</Text>}
    </SafeAreaView>
  );
}
