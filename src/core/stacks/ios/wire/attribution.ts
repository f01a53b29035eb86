import { isEnrolled } from '../../../roster/expected.js';
import { mergeAttribution } from '../../../formats/plist/attribution.js';
import type { Change } from '../../../edits/model.js';
import { identifierKey, mergedIds, itemsKey } from '../../../standards/skadnetwork.js';
import { targetLists, addKey } from './lists.js';
import type { IosWireContext } from './context.js';
import type { StackWiring } from '../../stack.js';

/** The lines of an item for one identifier. */
function itemLines(id: string): string[] {
  return ['  <dict>', `    <key>${identifierKey}</key>`, `    <string>${id}</string>`, '  </dict>'];
}

/** Brings the identifiers that enrolled networks require into every property list of the target. */
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
