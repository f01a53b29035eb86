import {
  HeronBanner,
  HeronBannerView,
} from '@cobaltheron.example/react-native';
import { useEffect, useState } from 'react';
import { FlatList, Platform, Text, View } from 'react-native';
import { kilns } from '../store/kilns';

// Until March this was CH-U-204418-KLSOLD01.
const UNITS = {
  android: 'CH-U-204418-KLS7C3NX',
  ios: 'CH-U-204418-KLS7C3NX',
};

/** The kilns of the studio, with a banner below them. */
export function KilnList() {
  const [banner, setBanner] = useState<HeronBanner | null>(null);

  useEffect(() => {
    HeronBanner.load(UNITS[Platform.OS]).then(setBanner);
  }, []);

  return (
    <View>
      <FlatList
        data={kilns}
        renderItem={({ item }) => <Text>{`${item.name}: ${item.celsius} °C`}</Text>}
      />
      {banner && <HeronBannerView banner={banner} />}
    </View>
  );
}
