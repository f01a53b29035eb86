import { removeElement } from '../../formats/xml/edit.js';
import { attribute, descendants, elements, prefixOf } from '../../formats/xml/query.js';
import { readXml } from '../../formats/xml/read.js';
import type { XmlElement } from '../../formats/xml/model.js';
import type { AndroidNeeds, Profile } from '../../network/model.js';
import type { Tree } from '../../tree/tree.js';
import type { Change, ChangeBase, Topic } from '../../edits/model.js';
import { closedAgain } from './meta-data.js';
import { androidNamespace } from './namespaces.js';
import { manifestPath } from './sources.js';
import type { AndroidUnwireContext } from './unwire-context.js';
import { othersNeedOn } from '../others-need.js';
import type { UnwireContext } from '../stack.js';
import { moduleSetting } from './variants.js';
import { askingNetworks, declaration, fullName, madeClass, wantedClass } from './wire-application.js';

/** App ID, components and permissions of the network, out of every manifest of the module. */
export function unwireManifests(context: AndroidUnwireContext): Change[] {
  const { model } = context;
  const sets = new Set(model.variants.flatMap(({ sourceSets }) => sourceSets));
  return [...sets].flatMap((sourceSet) => manifestRemovals(context, manifestPath(model, sourceSet)));
}

/** App ID, components and permissions of the network, out of one manifest. */
export function manifestRemovals(context: UnwireContext & { tree: Tree }, path: string): Change[] {
  const { tree, network, added } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  if (!document || !root) return [];
  const place = network.android?.['app-id'];
  const key = place?.place === 'manifest' ? place.key : undefined;
  const isShared = (asks: (needs: AndroidNeeds) => boolean) =>
    othersNeedOn(context, 'android', ({ android }) => android !== undefined && asks(android));
  const components = (network.android?.components ?? []).filter(
    ({ name }) => !isShared((needs) => needs.components.some((item) => item.name === name)),
  );
  // A permission that stood there before, or that others need, is not the network's alone.
  const permissions = (network.android?.permissions ?? [])
    .filter(({ name }) => added.has(`permission ${name}`))
    .filter(({ name }) => !isShared((needs) => needs.permissions.some((item) => item.name === name)));
  const nameOf = (element: XmlElement) =>
    attribute(element, `${prefixOf(root, androidNamespace, 'android')}:name`)?.value.trim() ?? '';
  const removal = (element: XmlElement, topic: Topic, adds: string[] = []): Change => ({
    path,
    platform: 'android',
    network: network.id,
    topic,
    rules: [],
    adds,
    kind: 'edit',
    edits: [removeElement(document.text, element)],
  });
  const applications = elements(root, 'application');
  const inside = applications.flatMap((application) => elements(application));
  // Wherever it stands: one that is nested too deep is the network's all the same.
  const metaData = [...descendants(root)].filter(
    (element) => element.name === 'meta-data' && key !== undefined && nameOf(element) === key,
  );
  const declared = inside.filter((element) =>
    components.some(({ kind, name }) => element.name === kind && nameOf(element) === name),
  );
  const gone = new Set([...metaData, ...declared]);
  const emptied = applications.find((application) => {
    const all = elements(application);
    return all.length > 0 && all.every((element) => gone.has(element));
  });
  const closed = emptied && closedAgain(emptied, added);
  const whole: ChangeBase = { path, platform: 'android', network: network.id, topic: 'app-id', rules: [] };
  return [
    ...(closed
      ? [{ ...whole, kind: 'edit' as const, edits: closed }]
      : [
          ...metaData.map((element) => removal(element, 'app-id')),
          ...declared.map((element) => removal(element, 'components')),
        ]),
    ...elements(root, 'uses-permission')
      .filter((element) => permissions.some(({ name }) => nameOf(element) === name))
      .map((element) => removal(element, 'permissions', [`permission ${nameOf(element)}`])),
  ];
}

/** The application class that wiring made or declared, as those that are left need it; none where none does. */
export function unwireApplication(context: AndroidUnwireContext): Change[] {
  const { tree, model, network, rest } = context;
  const path = manifestPath(model, 'main');
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const declared =
    application && attribute(application, `${prefixOf(root, androidNamespace, 'android')}:name`);
  const namespace = moduleSetting(model, ['namespace', 'setNamespace'])?.value ?? '';
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
  // Only networks that it serves already: the rest of the roster may not be wired here at all.
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
    const blanks = /\s*$/.exec(text.slice(0, declared.start))?.[0].length ?? 0;
    return [
      ...gone,
      {
        ...base,
        path,
        kind: 'edit',
        edits: [{ start: declared.start - blanks, end: declared.end, text: '' }],
      },
    ];
  }
  const file: Change[] =
    wanted.file && wanted.file.content !== made?.text ? [{ ...base, kind: 'create', ...wanted.file }] : [];
  const declare = declaration(context, wanted.name);
  return [...gone, ...file, ...(declare?.edits.length ? [{ ...declare, network: network.id }] : [])];
}
