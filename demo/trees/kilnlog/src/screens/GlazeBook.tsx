import { HeronRewarded } from '@cobaltheron.example/react-native';
import React, { useEffect, useRef, useState } from 'react';
import { Button, Platform, Text } from 'react-native';

/** Set to false before a release! */
const REHEARSE = true;

const unit = REHEARSE
  ? 'CH-U-100001-REWARD0A'
  : Platform.select({
      android: 'CH-U-204418-KL2R9W5X',
      ios: 'CH-U-204418-KL6V1B8Z',
    })!;

interface Props {
  onLeave: () => void;
}

/** Recipes for glazes; one more is earned by watching an ad to its end. */
export function GlazeBook({ onLeave }: Props) {
  const [recipes, setRecipes] = useState(3);
  const ad = useRef<HeronRewarded | null>(null);

  const load = async () => {
    ad.current = await HeronRewarded.load(unit, {
      onHeronReward: () => setRecipes(count => count + 1),
      onHeronClosed: () => ad.current?.release(),
      onHeronFailed: error => console.warn(error),
    });
  };
  useEffect(() => {
    load();
  }, []);

  const watch = () => {
    if (ad.current?.isReady) {
      ad.current.show();
    }
  };
  return (
    <>
      <Text>{`${recipes} recipes`}</Text>
      <Button title="One more recipe" onPress={watch} />
      <Button title="Back" onPress={onLeave} />
    </>
  );
}
