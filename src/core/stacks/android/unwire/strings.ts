import { readStrings } from '../../../formats/android-resources/read.js';
import { removeElement } from '../../../formats/xml/edit.js';
import { elements } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Change } from '../../../edits/model.js';
import { valueFiles } from '../survey/sources.js';
import type { AndroidUnwireContext } from './context.js';
import { uniqueMetaData } from '../wire/app-ids.js';
import { resourceFile } from '../wire/strings.js';

/** The strings that hold the network's app IDs, and those of its placements that no layout refers to. */
export function unwireStrings(context: AndroidUnwireContext): Change[] {
  const { tree, model, network, recogniser } = context;
  const place = network.android?.['app-id'];
  const names = new Set<string>();
  if (place?.place === 'manifest') {
    names.add(place.resource);
    for (const { element } of uniqueMetaData(context, place.key))
      for (const { value } of element.attributes) {
        const name = /^@string\/([\w.]+)$/.exec(value.trim())?.[1];
        if (name !== undefined) names.add(name);
      }
  }
  const isOurs = (value: string) =>
    recogniser.recognise(value, network.id).some((found) => found.network === network.id);
  const sets = new Set(model.variants.flatMap(({ sourceSets }) => sourceSets));
  return [...sets].flatMap((sourceSet) =>
    valueFiles(tree, model, sourceSet).flatMap((path): Change[] => {
      const document = tree.text(path);
      const root = tree.read(path, readXml)?.root;
      const all = tree.read(path, readStrings)?.strings ?? [];
      const gone = all.filter(({ name, value }) => names.has(name) && isOurs(value.trim()));
      if (!document || !root || gone.length === 0) return [];
      const base = {
        path,
        platform: 'android' as const,
        network: network.id,
        topic: 'app-id' as const,
        rules: [],
      };
      // The file that wiring made goes when nothing is left in it.
      if (path.endsWith(`/${resourceFile}`) && elements(root).length === gone.length)
        return [{ ...base, kind: 'remove' }];
      return gone.map(({ element }) => ({
        ...base,
        kind: 'edit',
        edits: [removeElement(document.text, element)],
      }));
    }),
  );
}
