import {
  HeronEvents,
  HeronInterstitial,
} from '@cobaltheron.example/react-native';
import React, { useEffect, useRef } from 'react';
import { Button, Platform, Text } from 'react-native';
import { countAd, type Firing } from '../store/firings';

const unit =
  Platform.OS === 'ios' ? 'CH-U-204418-KL4T7N2C' : 'CH-U-204418-KL8M3Q6D';

interface Props {
  firing: Firing;
  onLeave: () => void;
}

/** One firing and its curve; a full-screen ad may come when it is left. */
export function FiringDetail({ firing, onLeave }: Props) {
  const ad = useRef<HeronInterstitial | null>(null);

  useEffect(() => {
    const load = async () => {
      ad.current = await HeronInterstitial.load(unit, {
        onHeronFailed: onLeave,
        onHeronClosed: onLeave,
      });
    };
    load();
    HeronEvents.listen(countAd);
    return () => ad.current?.release();
  }, [onLeave]);

  const leave = () => {
    if (ad.current?.isReady) {
      ad.current.show();
    } else {
      onLeave();
    }
  };
  return (
    <>
      <Text>{`${firing.name}: cone ${firing.cone}`}</Text>
      <Button title="Back" onPress={leave} />
    </>
  );
}
