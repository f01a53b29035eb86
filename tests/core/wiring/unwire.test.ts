import { describe, expect, it } from 'vitest';
import { withoutNetwork } from '../../../src/core/roster/without.js';
import { handedOut, holds, texts, titleOn, unplan, written } from '../../support/wiring.js';
import { pairs, wholeTrees } from '../../support/whole-trees.js';

describe.each(Object.entries(wholeTrees))('taking networks out of %s', (_, { files, ids, stages }) => {
  it.each(pairs)('%s and %s: wiring takes nothing away that cannot come back', (one, other) => {
    const title = titleOn([one, other], ids, stages);
    const { plan, after } = holds(files, title, handedOut);
    const platforms = [
      ...plan.edits.flatMap((edit) => edit.platforms),
      ...plan.byHand.map(({ platform }) => platform),
    ];
    for (const platform of Object.keys(ids)) expect(platforms).toContain(platform);
    const added = plan.edits.flatMap((edit) => edit.adds);
    // One after the other: what is left is what the tree was, byte for byte.
    const first = written(after, unplan(after, title, one, added));
    const rest = withoutNetwork(title, one);
    const last = written(first, unplan(first, rest, other, added));
    expect(texts(last)).toEqual(texts(files));
    // And what is left after the first is what wiring the second alone would have made.
    expect(texts(first)).toEqual(texts(holds(files, rest, handedOut).after));
  });
});
