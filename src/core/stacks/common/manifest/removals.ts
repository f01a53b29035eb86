import type { Change, Topic, ChangeBase } from '../../../edits/model.js';
import { removeElement } from '../../../formats/xml/edit.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { attribute, prefixOf, elements, descendants } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { AndroidNeeds } from '../../../network/needs.js';
import type { Tree } from '../../../tree/tree.js';
import type { UnwireContext } from '../../stack.js';
import { othersNeedOn } from '../others-need.js';
import { directiveRemovals } from './directive-removals.js';
import { metaDataMark } from './meta-data-entries.js';
import { closedAgain } from './meta-data.js';
import { androidNamespace } from './namespaces.js';

/** App ID, components, permissions, meta-data and directives of the network, out of one manifest. */
export function manifestRemovals(context: UnwireContext & { tree: Tree }, path: string): Change[] {
  const { tree, network, added } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  if (!document || !root) return [];
  const own = ownNames(context);
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
  // Wherever it is: one that is nested too deep is the network's all the same.
  const metaData = [...descendants(root)].filter(
    (element) => element.name === 'meta-data' && own.appIds.includes(nameOf(element)),
  );
  const declared = inside.filter((element) =>
    own.components.some(({ kind, name }) => element.name === kind && nameOf(element) === name),
  );
  const directives = directiveRemovals(context, path);
  const put = inside.filter(
    (element) =>
      (element.name === 'meta-data' && own.metaData.includes(nameOf(element))) ||
      directives.elements.includes(element),
  );
  const gone = new Set([...metaData, ...declared, ...put]);
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
          ...put.map((element) => removal(element, element.name === 'meta-data' ? 'meta-data' : 'merge')),
        ]),
    ...directives.elements
      .filter((element) => !inside.includes(element))
      .map((element) => removal(element, 'merge')),
    ...directives.changes(gone),
    ...elements(root, 'uses-permission')
      .filter((element) => own.permissions.includes(nameOf(element)))
      .map((element) => removal(element, 'permissions', [`permission ${nameOf(element)}`])),
  ];
}

/** What of a manifest is the network's alone, by the names of its elements. */
function ownNames(context: UnwireContext) {
  const { network, added } = context;
  const isShared = (asks: (needs: AndroidNeeds) => boolean) =>
    othersNeedOn(context, 'android', ({ android }) => android !== undefined && asks(android));
  const place = network.android?.['app-id'];
  return {
    appIds: place?.place === 'manifest' ? [place.key] : [],
    components: (network.android?.components ?? []).filter(
      ({ name }) => !isShared((needs) => needs.components.some((item) => item.name === name)),
    ),
    // What stood there before, or what others need, is not the network's alone.
    permissions: (network.android?.permissions ?? [])
      .map(({ name }) => name)
      .filter((name) => added.has(`permission ${name}`))
      .filter((name) => !isShared((needs) => needs.permissions.some((item) => item.name === name))),
    metaData: (network.android?.['meta-data'] ?? [])
      .map(({ key }) => key)
      .filter((key) => added.has(metaDataMark(key)))
      .filter((key) => !isShared((needs) => needs['meta-data'].some((item) => item.key === key))),
  };
}
