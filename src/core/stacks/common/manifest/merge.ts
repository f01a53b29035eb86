import { elements, prefixOf } from '../../../formats/xml/query.js';
import type { XmlAttribute, XmlElement } from '../../../formats/xml/model.js';
import { androidNamespace, toolsNamespace } from './namespaces.js';
import type { ManifestFile } from './model.js';

/** An attribute of a merged element, and the manifest that gives it. */
export interface MergedAttribute {
  value: string;
  file: ManifestFile;
  attribute: XmlAttribute;
}

/** Two manifests that set one attribute to different values, without deciding which one wins. */
export interface MergeConflict {
  attribute: string;
  stronger: MergedAttribute;
  weaker: MergedAttribute;
}

/** An element as the manifest merger would leave it. */
interface MergedElement {
  /** Its `android:name`; empty for elements that have none, such as `application`. */
  key: string;
  /** What it is made of, the strongest first. */
  sources: { file: ManifestFile; element: XmlElement }[];
  /** Attributes of the Android namespace, by their local names. */
  attributes: Map<string, MergedAttribute>;
  conflicts: MergeConflict[];
}

/** An element that a directive keeps out of the merged manifest, whether or not any manifest declares it. */
export interface RemovedElement {
  key: string;
  /** The directive as it is written, such as `tools:node="remove"`, and where. */
  directive: string;
  file: ManifestFile;
  element: XmlElement;
}

/**
 * Merges the elements of one name that are at one place of every manifest: directly in `manifest`, or in
 * `application`. Rules: `tools:node`, `tools:replace`, `tools:remove` and `tools:selector` as the Android
 * guide "Manage manifest files" gives them. Of several elements with one key in one file the first counts.
 * @param files the weakest first
 */
export function mergedElements(
  files: readonly ManifestFile[],
  name: string,
  parent: 'manifest' | 'application' = 'application',
): MergedElement[] {
  return merge(files, name, parent).flatMap(({ key, sources, attributes, conflicts, removedBy }) =>
    removedBy ? [] : [{ key, sources, attributes, conflicts }],
  );
}

/** The elements of one name that directives remove: see `mergedElements`. */
export function removedElements(
  files: readonly ManifestFile[],
  name: string,
  parent: 'manifest' | 'application' = 'application',
): RemovedElement[] {
  return merge(files, name, parent).flatMap(({ key, removedBy }) =>
    removedBy ? [{ key, ...removedBy }] : [],
  );
}

type Removal = Omit<RemovedElement, 'key'>;

type Merging = MergedElement & { closed: boolean; removedBy: Removal | undefined; rules: Rules };

function merge(
  files: readonly ManifestFile[],
  name: string,
  parent: 'manifest' | 'application',
): (MergedElement & { removedBy: Removal | undefined })[] {
  const merged = new Map<string, Merging>();
  let closed: Removal | undefined;
  for (const file of [...files].reverse()) {
    const { root } = file.document;
    if (!root) continue;
    const here = new Set<string>();
    let closing: Removal | undefined;
    for (const element of candidates(root, name, parent)) {
      const key = nameOf(root, element) ?? '';
      const rules = rulesOf(root, element);
      if (rules.node === 'removeAll') closing = removal(file, root, element);
      if (here.has(key) || rules.node === 'removeAll') continue;
      here.add(key);
      const known = merged.get(key);
      if (!known) merged.set(key, begun(key, { file, root, element }, rules, closed));
      else if (!closed) addWeaker(known, { file, root, element }, rules);
    }
    const application = replacingApplication(root, parent);
    closed ??= closing ?? (application && removal(file, root, application));
  }
  return [...merged.values()];
}

/** An element of a manifest, with what is around it. */
interface Declared {
  file: ManifestFile;
  root: XmlElement;
  element: XmlElement;
}

/** The directive of the strongest manifest for an element; weaker ones are removed by it if it closes the merging. */
function begun(
  key: string,
  { file, root, element }: Declared,
  rules: Rules,
  closed: Removal | undefined,
): Merging {
  if (closed)
    return { key, sources: [], attributes: new Map(), conflicts: [], closed: true, removedBy: closed, rules };
  return {
    key,
    sources: [{ file, element }],
    attributes: attributesOf(root, element, file),
    conflicts: [],
    closed: rules.node === 'replace',
    removedBy: rules.node === 'remove' ? removal(file, root, element) : undefined,
    rules,
  };
}

/** Adds what a weaker manifest says of an element. */
function addWeaker(known: Merging, { file, root, element }: Declared, rules: Rules): void {
  const selected =
    known.rules.selector === null || (file.library && known.rules.selector === packageOf(root));
  if (known.removedBy && !selected) {
    // The removal was meant for another library.
    known.removedBy = undefined;
    known.sources = [];
    known.attributes = new Map();
  }
  if (known.removedBy || known.closed) return;
  known.sources.push({ file, element });
  for (const [local, weaker] of attributesOf(root, element, file)) {
    if (selected && known.rules.remove.has(local)) continue;
    const stronger = known.attributes.get(local);
    if (!stronger) known.attributes.set(local, weaker);
    else if (stronger.value !== weaker.value && !(selected && known.rules.replace.has(local)))
      known.conflicts.push({ attribute: local, stronger, weaker });
  }
  known.rules = joined(known.rules, rules);
  if (rules.node === 'replace') known.closed = true;
}

/** What removes an element: its directive. */
function removal(file: ManifestFile, root: XmlElement, element: XmlElement): Removal {
  const prefix = prefixOf(root, toolsNamespace, 'tools');
  const written = element.attributes.find(({ name }) => name === `${prefix}:node`);
  return { directive: `${prefix}:node="${written?.value ?? ''}"`, file, element };
}

interface Rules {
  node: string | null;
  replace: Set<string>;
  remove: Set<string>;
  selector: string | null;
}

function joined(stronger: Rules, weaker: Rules): Rules {
  return {
    node: stronger.node ?? weaker.node,
    replace: new Set([...stronger.replace, ...weaker.replace]),
    remove: new Set([...stronger.remove, ...weaker.remove]),
    selector: stronger.selector ?? weaker.selector,
  };
}

function candidates(root: XmlElement, name: string, parent: 'manifest' | 'application'): XmlElement[] {
  if (name === 'application' || parent === 'manifest') return elements(root, name);
  return elements(root, 'application').flatMap((application) => elements(application, name));
}

function rulesOf(root: XmlElement, element: XmlElement): Rules {
  const prefix = prefixOf(root, toolsNamespace, 'tools');
  const read = (local: string) =>
    element.attributes.find(({ name }) => name === `${prefix}:${local}`)?.value.trim() ?? null;
  const list = (local: string) =>
    new Set((read(local) ?? '').split(',').flatMap((item) => item.trim().split(':').at(-1) || []));
  return { node: read('node'), replace: list('replace'), remove: list('remove'), selector: read('selector') };
}

/** `tools:node="replace"` on the application element itself keeps everything weaker out of it. */
function replacingApplication(root: XmlElement, parent: 'manifest' | 'application'): XmlElement | undefined {
  if (parent !== 'application') return undefined;
  return elements(root, 'application').find((element) =>
    ['replace', 'removeAll'].includes(rulesOf(root, element).node ?? ''),
  );
}

function nameOf(root: XmlElement, element: XmlElement): string | undefined {
  const prefix = prefixOf(root, androidNamespace, 'android');
  if (element.name === 'application') return undefined;
  return element.attributes.find(({ name }) => name === `${prefix}:name`)?.value.trim();
}

function packageOf(root: XmlElement): string | undefined {
  return root.attributes.find(({ name }) => name === 'package')?.value;
}

function attributesOf(
  root: XmlElement,
  element: XmlElement,
  file: ManifestFile,
): Map<string, MergedAttribute> {
  const prefix = `${prefixOf(root, androidNamespace, 'android')}:`;
  return new Map(
    element.attributes.flatMap((attribute) =>
      attribute.name.startsWith(prefix)
        ? [[attribute.name.slice(prefix.length), { value: attribute.value, file, attribute }] as const]
        : [],
    ),
  );
}
