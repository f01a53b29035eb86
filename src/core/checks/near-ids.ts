import { editsApart } from '../text/edit-distance.js';
import { valueAt } from '../text/own-values.js';
import type { Title } from '../roster/model.js';

/** So many characters of an ID are mistyped at most; more is another ID. */
const most = 2;

/** The unit ID on record that an unknown one most likely means, and its placement; undefined where none is near. */
export function nearUnit(
  id: string,
  network: string,
  title: Title,
): { id: string; placement: string } | undefined {
  const held = Object.entries(title.placements).flatMap(([placement, { units }]) =>
    Object.values(valueAt(units, network) ?? {}).flatMap((stages) =>
      Object.values(stages).map((unit) => ({ id: unit, placement })),
    ),
  );
  return held
    .flatMap((one) => {
      const edits = one.id === id ? undefined : editsApart(id, one.id, most);
      return edits === undefined ? [] : [{ ...one, edits }];
    })
    .sort((a, b) => a.edits - b.edits)
    .map(({ id: near, placement }) => ({ id: near, placement }))[0];
}
