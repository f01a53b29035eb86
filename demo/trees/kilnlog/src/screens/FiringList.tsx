import { Ferrowick, ZoneCard } from '@ferrowick.example/zones';
import React from 'react';
import { Button, FlatList, Platform, Pressable, Text } from 'react-native';
import { useFirings, type Firing } from '../store/firings';

// The zone of the old list was 771442000009.
const zone = Platform.select({ ios: '771442018834' });

interface Props {
  onOpen: (firing: Firing) => void;
  onGlazes: () => void;
}

/** Every firing, the newest first, with a card between them now and then. */
export function FiringList({ onOpen, onGlazes }: Props) {
  const firings = useFirings();
  return (
    <FlatList
      data={firings}
      ListHeaderComponent={<Button title="Glazes" onPress={onGlazes} />}
      renderItem={({ item, index }) => {
        if (index % 8 === 7) {
          Ferrowick.fillCard(zone, { onVacant: () => undefined });
        }
        return (
          <Pressable onPress={() => onOpen(item)}>
            <Text>{item.name}</Text>
            {index % 8 === 7 && <ZoneCard zone={zone} />}
          </Pressable>
        );
      }}
    />
  );
}
