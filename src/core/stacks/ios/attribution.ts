import { mergeAttribution } from '../../formats/plist/attribution.js';
import { topEntries } from '../../formats/plist/read.js';
import type { Profile } from '../../network/model.js';
import { isEnrolled } from '../../roster/expected.js';
import { identifierKey, itemsKey, mergedIds } from '../../standards/skadnetwork.js';
import { idsIn } from '../../formats/attribution-list/read.js';
import type { Fact } from '../../facts/model.js';
import { placeAt } from '../../facts/place.js';
import type { Tree } from '../../tree/tree.js';
import type { Change } from '../../edits/model.js';
import type { StackWiring } from '../stack.js';
import { plistOf, type FoundPlist, type IosVariant, type TargetModel } from './targets.js';
import type { IosWireContext } from './wire-context.js';
import { addKey, targetLists } from './wire-lists.js';

/** The SKAdNetwork identifiers that the property list of a variant names, right or wrong. */
export function attributionFacts(
  tree: Tree,
  { target }: TargetModel,
  variant: IosVariant,
  profiles: readonly Profile[],
): Fact[] {
  const list = plistOf(tree, variant);
  return list ? attributionIn(list, { module: target.name, variant: variant.name }, profiles) : [];
}

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

/** Brings the identifiers that enrolled networks ask for into every property list of the target. */
export function wireAttribution(context: IosWireContext): StackWiring {
  const { title, profiles } = context;
  const asking = profiles.filter(({ id, ios }) => ios?.attribution && isEnrolled(title, id, 'ios'));
  const wanted = mergedIds(asking.map(({ ios }) => ios?.attribution?.ids ?? []));
  if (wanted.length === 0) return { changes: [], byHand: [] };
  const rules = ['attribution/id-missing', 'attribution/id-twice'];
  const given = { platform: 'ios' as const, topic: 'attribution' as const, rules };
  const changes = (targetLists(context) ?? []).flatMap((list): Change[] => {
    // One list serves all networks that ask: the same edits, said once for each.
    if (!list.text) {
      const lines = ['<array>', ...wanted.flatMap(itemLines), '</array>'];
      return asking.flatMap(({ id }) => addKey(context, list, itemsKey, lines, { ...given, network: id }));
    }
    const edits = mergeAttribution(list.text.text, list.root, wanted, list.text.lineEnd);
    return edits.length === 0
      ? []
      : asking.map(({ id }) => ({ ...given, network: id, path: list.path, kind: 'edit', edits }));
  });
  return { changes, byHand: [] };
}

function itemLines(id: string): string[] {
  return ['  <dict>', `    <key>${identifierKey}</key>`, `    <string>${id}</string>`, '  </dict>'];
}
