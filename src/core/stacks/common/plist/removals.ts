import { removeEntry } from '../../../formats/plist/edit.js';
import type { EditChange } from '../../../edits/model.js';
import type { PlistValue } from '../../../formats/plist/read.js';
import type { IosNeeds } from '../../../network/needs.js';
import { removeElement } from '../../../formats/xml/edit.js';
import { identifierKey, itemsKey, normalId } from '../../../standards/skadnetwork.js';
import type { UnwireContext } from '../../stack.js';
import { othersNeedOn } from '../others-need.js';

function isMine(context: UnwireContext, item: PlistValue): boolean {
  if (item.type !== 'dict') return false;
  const value = item.entries.find(({ key }) => key === identifierKey)?.value;
  const id = value?.type === 'string' ? normalId(value.value) : null;
  if (id === null || !context.network.ios?.attribution?.ids.includes(id)) return false;
  return !othersNeedOn(context, 'ios', ({ ios }) => ios?.attribution?.ids.includes(id) ?? false);
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
  for (const { key } of network.ios?.keys ?? [])
    if (added.has(`key ${key}`) && !isShared((needs) => needs.keys.some((other) => other.key === key)))
      keys.add(key);
  const removals: Pick<EditChange, 'topic' | 'edits' | 'adds'>[] = [];
  const gone = root.entries.filter(({ key }) => keys.has(key));
  for (const entry of gone)
    removals.push({
      topic: place?.place === 'plist' && entry.key === place.key ? 'app-id' : 'keys',
      edits: [removeEntry(text, entry)],
      adds: [`key ${entry.key}`],
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
