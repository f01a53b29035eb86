import type { Statement } from '../../../formats/gradle/model.js';
import { readProperties } from '../../../formats/properties/read.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { catalogsOf } from '../../common/gradle/catalogs.js';
import type { Resolved } from '../../common/gradle/resolved.js';

/** The version under an alias of a version catalogue; undefined when there is none. */
export function catalogVersion(catalog: string, alias: string, scope: Scope): Resolved | undefined {
  const found = catalogsOf(scope.tree, scope.root).find(({ name }) => name === catalog);
  const version = found?.catalog.versions.get(alias);
  if (!found || !version) return undefined;
  const document = scope.tree.text(found.path);
  const line = /^[^\r\n]*/.exec(document?.text.slice(version.start) ?? '')?.[0].trimEnd() ?? alias;
  const place = placeAt(found.path, document, { start: version.start, end: version.start + line.length });
  return { value: version.value, chain: [{ what: 'version catalogue', value: version.value, place }] };
}

/** The value of a property in `gradle.properties`; undefined when there is none. */
export function gradleProperty(name: string, { tree, root, module }: Scope): Resolved | undefined {
  for (const folder of new Set([module, root])) {
    const found = propertyIn(tree, folder ? `${folder}/gradle.properties` : 'gradle.properties', name);
    if (found) return found;
  }
  return undefined;
}

/** The value of a property in a `.properties` file; undefined when the file or the property is not there. */
export function propertyIn(tree: Tree, path: string, name: string): Resolved | undefined {
  const found = tree.has(path) ? tree.read(path, readProperties)?.entries.get(name) : undefined;
  if (!found) return undefined;
  const place = placeAt(path, tree.text(path), found);
  return { value: found.value, chain: [{ what: baseOf(path), value: found.value, place }] };
}

/** What names mean in the scripts of one module. */
export interface Scope {
  tree: Tree;
  root: string;
  /** The file that the expression is in. */
  path: string;
  module: string;
  /** What is declared around the expression, in code of the build. */
  around?: readonly Statement[];
}
