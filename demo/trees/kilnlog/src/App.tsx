import { CobaltHeron } from '@cobaltheron.example/react-native';
import { Ferrowick } from '@ferrowick.example/zones';
import React, { useEffect, useState } from 'react';
import { SafeAreaView, Text } from 'react-native';
import { FiringDetail } from './screens/FiringDetail';
import { FiringList } from './screens/FiringList';
import { GlazeBook } from './screens/GlazeBook';
import type { Firing } from './store/firings';

type Page = { at: 'list' } | { at: 'firing'; firing: Firing } | { at: 'glazes' };

/** The whole app: a list of firings, one of them, and the book of glazes. */
export function App(): React.JSX.Element {
  const [ready, setReady] = useState(false);
  const [page, setPage] = useState<Page>({ at: 'list' });

  CobaltHeron.start();

  useEffect(() => {
    Ferrowick.light().then(() => setReady(true));
  }, []);

  if (!ready) {
    return <Text>Heating up …</Text>;
  }
  return (
    <SafeAreaView>
      {page.at === 'list' && (
        <FiringList
          onOpen={firing => setPage({ at: 'firing', firing })}
          onGlazes={() => setPage({ at: 'glazes' })}
        />
      )}
      {page.at === 'firing' && (
        <FiringDetail
          firing={page.firing}
          onLeave={() => setPage({ at: 'list' })}
        />
      )}
      {page.at === 'glazes' && (
        <GlazeBook onLeave={() => setPage({ at: 'list' })} />
      )}
    </SafeAreaView>
  );
}
