import { removeEntry } from '../../../formats/plist/edit.js';
import type { EditChange } from '../../../edits/model.js';
import type { PlistValue } from '../../../formats/plist/read.js';
import type { IosNeeds } from '../../../network/needs.js';
import { removeElement } from '../../../formats/xml/edit.js';
import { identifierKey, itemsKey, normalId } from '../../../standards/skadnetwork.js';
import type { UnwireContext } from '../../stack.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import { othersNeedOn } from '../others-need.js';
import { valuesOf } from './keys.js';
import { isMade, keyMark } from './marks.js';
import { plainOf, type PlainValue } from '../../../formats/plist/plain.js';
import { partRemovals, partsAlone } from './taken-out.js';

function isMine(context: UnwireContext, item: PlistValue): boolean {
  if (item.type !== 'dict') return false;
  const value = item.entries.find(({ key }) => key === identifierKey)?.value;
  const id = value?.type === 'string' ? normalId(value.value) : null;
  if (id === null || !context.network.ios?.attribution?.ids.includes(id)) return false;
  return !othersNeedOn(context, 'ios', ({ ios }) => ios?.attribution?.ids.includes(id) ?? false);
}

/** What a network alone has in the value of a key that stays: entries and items that wiring made. */
function shareOf(
  { allProfiles, network, rest, added }: UnwireContext,
  text: string,
  root: PlistValue & { type: 'dict' },
  { key, value: mine }: IosNeeds['keys'][number],
): Edit[] {
  const found = root.entries.find((entry) => entry.key === key)?.value;
  if (!found || mine === undefined) return [];
  const others = valuesOf(
    allProfiles.filter(({ id }) => id !== network.id && isEnrolled(rest, id, 'ios')),
    key,
  );
  const share = { mine, others, isMade: (way: string[], item?: PlainValue) => isMade(added, key, way, item) };
  return partRemovals(text, found, partsAlone(plainOf(found), share));
}

/** What a network alone has in a property list, and whether nothing is left without it. */
export function listRemovals(
  context: UnwireContext,
  text: string,
  root: PlistValue & { type: 'dict' },
): { removals: Pick<EditChange, 'topic' | 'edits' | 'adds'>[]; isEmptied: boolean } {
  const { network, added } = context;
  const isShared = (asks: (needs: IosNeeds) => boolean) =>
    othersNeedOn(context, 'ios', ({ ios }) => ios !== undefined && asks(ios));
  const place = network.ios?.['app-id'];
  const keys = new Set<string>();
  if (
    place?.place === 'plist' &&
    !isShared((needs) => needs['app-id']?.place === 'plist' && needs['app-id'].key === place.key)
  )
    keys.add(place.key);
  const removals: Pick<EditChange, 'topic' | 'edits' | 'adds'>[] = [];
  for (const key of network.ios?.keys ?? []) {
    const shared = isShared((needs) => needs.keys.some((other) => other.key === key.key));
    if (added.has(keyMark(key.key)) && !shared) keys.add(key.key);
    else {
      const edits = shareOf(context, text, root, key);
      if (edits.length > 0) removals.push({ topic: 'keys', edits });
    }
  }
  const gone = root.entries.filter(({ key }) => keys.has(key));
  for (const entry of gone)
    removals.push({
      topic: place?.place === 'plist' && entry.key === place.key ? 'app-id' : 'keys',
      edits: [removeEntry(text, entry)],
      adds: [keyMark(entry.key)],
    });
  const attribution = root.entries.find(({ key }) => key === itemsKey);
  const items = attribution?.value.type === 'array' ? attribution.value.items : [];
  const mine = items.filter((item) => isMine(context, item));
  const whole = attribution !== undefined && mine.length > 0 && mine.length === items.length;
  if (whole) removals.push({ topic: 'attribution', edits: [removeEntry(text, attribution)] });
  else if (mine.length > 0)
    removals.push({ topic: 'attribution', edits: mine.map(({ element }) => removeElement(text, element)) });
  return { removals, isEmptied: root.entries.length === gone.length + (whole ? 1 : 0) };
}
