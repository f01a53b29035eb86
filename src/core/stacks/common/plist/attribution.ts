import { topEntries } from '../../../formats/plist/read.js';
import type { Profile } from '../../../network/model.js';
import { itemsKey } from '../../../standards/skadnetwork.js';
import { idsIn } from '../../../formats/attribution-list/read.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { type FoundPlist } from './properties.js';

/** The SKAdNetwork identifiers that a property list names, right or wrong. */
export function attributionIn(
  list: FoundPlist,
  { module, variant }: { module: string; variant: string },
  profiles: readonly Profile[],
): Fact[] {
  const { text } = list;
  const owners = new Map(
    profiles.flatMap(({ id, ios }) => (ios?.attribution?.ids ?? []).map((wanted) => [wanted, id] as const)),
  );
  return topEntries(list.document)
    .filter(({ key }) => key === itemsKey)
    .flatMap(({ value }) => idsIn(value))
    .map(({ written, id, start, end }): Fact => {
      const place = placeAt(list.path, text, { start, end });
      return {
        kind: 'attribution-id',
        network: (id === null ? undefined : owners.get(id)) ?? null,
        platform: 'ios',
        module,
        variants: [variant],
        name: itemsKey,
        value: written,
        effective: true,
        place,
        chain: [{ what: 'property list', value: written, place }],
      };
    });
}
