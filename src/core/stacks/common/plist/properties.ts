import { isBinaryPlist, readBinaryPlist } from '../../../formats/plist/binary.js';
import { readPlist, type PlistDocument } from '../../../formats/plist/read.js';
import type { TextDocument } from '../../../text/document.js';
import type { Tree } from '../../../tree/tree.js';

/** A property list of a tree, in XML or binary; undefined when it is not there. */
export function propertiesOf(tree: Tree, path: string): PlistDocument | undefined {
  const file = tree.file(path);
  if (!file) return undefined;
  return isBinaryPlist(file.bytes) ? tree.readBytes(path, readBinaryPlist) : tree.read(path, readPlist);
}

/** A property list that is in the tree; `text` is missing for a binary one. */
export interface FoundPlist {
  path: string;
  document: PlistDocument;
  text: TextDocument | undefined;
}
