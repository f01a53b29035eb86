import { describe, expect, it } from 'vitest';
import type { Title } from '../../src/core/roster/model.js';
import { withoutNetwork } from '../../src/core/roster/without.js';
import { pairs, type WholeTree } from './whole-trees.js';
import { handedOut, holds, texts, titleOn, unplan, written } from './wiring.js';

/** Wires two networks into each of some trees and takes them out again, in every pair: a file of tests takes half of them. */
export function unwires(trees: readonly (readonly [name: string, tree: WholeTree])[]): void {
  describe.each(trees)('taking networks out of %s', (_, { files, ids, stages }) => {
    /** The tree as wiring one network makes it. */
    const alone = new Map<string, Record<string, string>>();
    const wiredFor = (network: string, title: Title) => {
      const known = alone.get(network) ?? texts(holds(files, title, handedOut).after);
      alone.set(network, known);
      return known;
    };

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
      expect(texts(first)).toEqual(wiredFor(other, rest));
    });
  });
}
