import { attribute, descendants, prefixOf } from '../../../formats/xml/query.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import type { ManifestFile } from './model.js';
import { androidNamespace } from './namespaces.js';

/** A meta-data element that has a key, and the element that holds it. */
export interface FoundMetaData {
  path: string;
  sourceSet: string;
  element: XmlElement;
  /** Whether it is where keys for the whole app belong: directly in the application element. */
  inApplication: boolean;
}

/** All meta-data of one key in manifests, in their order. */
export function metaDataIn(files: readonly ManifestFile[], key: string): FoundMetaData[] {
  return files.flatMap(({ path, sourceSet, document }) => {
    const { root } = document;
    if (!root) return [];
    const prefix = prefixOf(root, androidNamespace, 'android');
    return [...descendants(root)]
      .filter(
        (element) =>
          element.name === 'meta-data' && attribute(element, `${prefix}:name`)?.value.trim() === key,
      )
      .map((element) => ({
        path,
        sourceSet,
        element,
        inApplication: element.parent?.name === 'application' && element.parent.parent === root,
      }));
  });
}
