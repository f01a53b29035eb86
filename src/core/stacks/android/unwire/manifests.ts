import { namespaceOf } from '../survey/identifier.js';
import { removeAttribute } from '../../../formats/xml/edit.js';
import { attribute, elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Profile } from '../../../network/model.js';
import type { Change } from '../../../edits/model.js';
import { androidNamespace } from '../../common/manifest/namespaces.js';
import { manifestPath } from '../survey/sources.js';
import type { AndroidUnwireContext } from './context.js';
import { askingNetworks, declaration, fullName, madeClass, wantedClass } from '../wire/application.js';
import { manifestRemovals } from '../../common/manifest/removals.js';

/** App ID, components and permissions of the network, out of every manifest of the module. */
export function unwireManifests(context: AndroidUnwireContext): Change[] {
  const { model } = context;
  const sets = new Set(model.variants.flatMap(({ sourceSets }) => sourceSets));
  return [...sets].flatMap((sourceSet) => manifestRemovals(context, manifestPath(model, sourceSet)));
}

/** The application class that wiring made or declared, as those that are left need it; none where none does. */
export function unwireApplication(context: AndroidUnwireContext): Change[] {
  const { tree, model, network, rest } = context;
  const path = manifestPath(model, 'main');
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const declared =
    application && attribute(application, `${prefixOf(root, androidNamespace, 'android')}:name`);
  const namespace = namespaceOf(tree, model)?.value ?? '';
  const made = madeClass(context);
  const isMade = made !== undefined && declared && fullName(declared.value, namespace) === made.name;
  const isOwn = declared && declared.value === network.android?.application?.class;
  if (!declared || (!isMade && !isOwn)) return [];
  const base = {
    platform: 'android' as const,
    network: network.id,
    topic: 'application' as const,
    rules: [],
  };
  // Only networks that it already serves: the rest of the roster may not be wired here.
  const served = (profile: Profile) =>
    [profile.code.kotlin, profile.code.java].some(
      (code) => code && made?.text.includes(`${code.start.call}(`),
    ) ||
    (profile.android?.application !== undefined &&
      (made?.text ?? declared.value).includes(profile.android.application.class));
  const asking = askingNetworks({ ...context, title: rest }).filter(({ profile }) => served(profile));
  const wanted = asking.length > 0 ? wantedClass({ ...context, title: rest }, asking, namespace) : undefined;
  const gone: Change[] =
    made && isMade && wanted?.file?.path !== made.path ? [{ ...base, path: made.path, kind: 'remove' }] : [];
  if (!wanted) {
    const text = tree.text(path)?.text ?? '';
    return [...gone, { ...base, path, kind: 'edit', edits: [removeAttribute(text, declared)] }];
  }
  const file: Change[] =
    wanted.file && wanted.file.content !== made?.text ? [{ ...base, kind: 'create', ...wanted.file }] : [];
  const declare = declaration(context, wanted.name);
  return [...gone, ...file, ...(declare?.edits.length ? [{ ...declare, network: network.id }] : [])];
}
