import { entryOf, stringOf, stringsOf } from '../../../formats/pbxproj/read.js';
import { labelled, pbxString } from '../../../formats/pbxproj/edit.js';
import type { Profile } from '../../../network/model.js';
import type { Edit } from '../../../text/edit.js';
import { addObject, addToList, addToOrMakeList, objectId } from './pbx-objects.js';
import type { IosWireContext } from './context.js';

type Package = NonNullable<Profile['ios']>['packages'][number];

/** The names of the objects of a package, the same each time. */
export function packageIds(target: string, { url, product }: Package) {
  const id = (role: string) => objectId(`${role} ${target} ${url} ${product}`);
  return { reference: id('package'), product: id('product'), build: id('product build') };
}

/** What the comment of a package reference says. */
export function packageName({ url }: Package): string {
  return (
    url
      .replace(/\/+$/, '')
      .replace(/\.git$/, '')
      .split('/')
      .at(-1) ?? url
  );
}

/** Adds Swift packages to the project; null where the target links nothing yet. */
export function packageEdits(context: IosWireContext, packages: readonly Package[]): Edit[] | null {
  const made = new Map<string, string>();
  const edits: Edit[] = [];
  for (const wanted of packages) {
    const found = edit(context, wanted, made.get(wanted.url));
    if (!found) return null;
    made.set(wanted.url, made.get(wanted.url) ?? packageIds(context.model.target.id, wanted).reference);
    edits.push(...found);
  }
  return edits;
}

/**
 * Adds a Swift package to the project and its product to the target, as Xcode does: a reference, the product,
 * and its place in the phase that links. Null where the target links nothing yet.
 * @param made the reference to the same package that was added before this one
 */
function edit({ tree, model }: IosWireContext, wanted: Package, made: string | undefined): Edit[] | null {
  const { project, target } = model;
  const document = tree.text(project.path);
  const entries = project.objects.entries;
  const root = entries.find((entry) => stringOf(entry.value, 'isa') === 'PBXProject');
  const phase = stringsOf(target.entry.value, 'buildPhases')
    .map((id) => entryOf(project.objects, id))
    .find((entry) => stringOf(entry?.value, 'isa') === 'PBXFrameworksBuildPhase');
  if (!document || !root || !phase) return null;
  const { text, lineEnd } = document;
  const { url, product, version } = wanted;
  const known =
    made ??
    entries.find(
      ({ value }) =>
        stringOf(value, 'isa') === 'XCRemoteSwiftPackageReference' &&
        stringOf(value, 'repositoryURL') === url,
    )?.key;
  const ids = packageIds(target.id, wanted);
  const reference = known ?? ids.reference;
  const label = `XCRemoteSwiftPackageReference "${packageName(wanted)}"`;
  const name = pbxString(product);
  const add = (isa: string, line: string) => addObject(text, project.objects, isa, line, lineEnd);
  const listed = addToList(text, phase, 'files', labelled(ids.build, `${product} in Frameworks`), lineEnd);
  const lists = [
    known !== undefined
      ? undefined
      : addToOrMakeList(text, root, 'packageReferences', labelled(reference, label), lineEnd),
    addToOrMakeList(
      text,
      target.entry,
      'packageProductDependencies',
      labelled(ids.product, product),
      lineEnd,
    ),
    listed && [listed],
  ];
  if (lists.slice(known === undefined ? 0 : 1).some((edits) => edits === undefined)) return null;
  return [
    ...lists.flatMap((edits) => edits ?? []),
    ...add(
      'PBXBuildFile',
      `${labelled(ids.build, `${product} in Frameworks`)} = {isa = PBXBuildFile; productRef = ${labelled(ids.product, product)}; };`,
    ),
    ...(known !== undefined
      ? []
      : [
          ...add(
            'XCRemoteSwiftPackageReference',
            `${labelled(reference, label)} = {isa = XCRemoteSwiftPackageReference; repositoryURL = ${pbxString(url)}; requirement = {kind = upToNextMajorVersion; minimumVersion = ${pbxString(version)}; }; };`,
          ),
        ]),
    ...add(
      'XCSwiftPackageProductDependency',
      `${labelled(ids.product, product)} = {isa = XCSwiftPackageProductDependency; package = ${labelled(reference, label)}; productName = ${name}; };`,
    ),
  ];
}
