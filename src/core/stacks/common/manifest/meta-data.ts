import { appendChild, removeElement, setAttribute } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import type { Profile } from '../../../network/model.js';
import type { Edit } from '../../../text/edit.js';
import type { Change } from '../../../edits/model.js';
import { appIdRules } from '../by-hand-steps.js';
import type { StackWiring } from '../../stack.js';
import type { FoundMetaData } from './found-meta-data.js';
import { androidNamespace } from './namespaces.js';
import type { ManifestWireContext } from './model.js';

const platform = 'android' as const;
const topic = 'app-id' as const;

/** Gives the application element of the manifest one meta-data element with a reference, and takes astray ones out. */
export function metaDataChanges(
  context: ManifestWireContext,
  profile: Profile,
  { key, reference, found }: { key: string; reference: string; found: readonly FoundMetaData[] },
): StackWiring {
  const { tree, manifest: path } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const bound = root?.attributes.some(({ value }) => value === androidNamespace);
  if (!document || !root || !application || !bound) {
    const what = `Give ${path} an application element${root && !bound ? ` and xmlns:android="${androidNamespace}"` : ''}.`;
    const why = 'There is no place for the app ID.';
    return {
      changes: [],
      byHand: [{ platform, network: profile.id, rule: null, what, why, where: path }],
    };
  }
  const prefix = prefixOf(root, androidNamespace, 'android');
  const keep = found.find((item) => item.path === path && item.inApplication);
  const changes: Change[] = found
    .filter((item) => item !== keep)
    .map((item) => metaDataRemoval(context, profile, item));
  const edits = keep
    ? valueEdits(keep.element, prefix, reference)
    : appendChild(
        document.text,
        application,
        [`<meta-data`, `  ${prefix}:name="${escapeXml(key)}"`, `  ${prefix}:value="${reference}" />`],
        document.lineEnd,
      );
  // Moving one out of a component is what fixes the one that was too deep.
  const nested = found.some(({ inApplication }) => !inApplication) ? ['app-id/nested-too-deep'] : [];
  const adds = keep ? [] : openedMarks(document.text, application);
  if (edits.length > 0)
    changes.push({
      path,
      platform,
      network: profile.id,
      topic,
      rules: [...nested, ...appIdRules],
      adds,
      kind: 'edit',
      edits,
    });
  return { changes, byHand: [] };
}

function valueEdits(element: XmlElement, prefix: string, reference: string) {
  const resource = element.attributes.find(({ name }) => name === `${prefix}:resource`);
  const edits = setAttribute(element, `${prefix}:value`, reference);
  return resource ? [...edits, { start: resource.start, end: resource.end, text: '' }] : edits;
}

/** Takes a meta-data element out that is where it does not belong. */
export function metaDataRemoval(
  { tree }: Pick<ManifestWireContext, 'tree'>,
  profile: Profile,
  item: FoundMetaData,
): Change {
  return {
    path: item.path,
    platform,
    network: profile.id,
    topic,
    rules: item.inApplication ? ['app-id/duplicated', ...appIdRules] : ['app-id/nested-too-deep'],
    kind: 'edit',
    edits: [removeElement(tree.text(item.path)?.text ?? '', item.element)],
  };
}

const opened = 'application was ';

/** How an application element ended that had nothing in it, so that it can end like this again. */
export function openedMarks(text: string, application: XmlElement): string[] {
  const { selfClosing, openTag, closeTag, end } = application;
  if (selfClosing) return [`${opened}${/\s*\/>$/.exec(text.slice(0, openTag.end))?.[0] ?? '/>'}`];
  if (closeTag?.start !== openTag.end) return [];
  return [`${opened}${text.slice(openTag.end - 1, end)}`];
}

/** Ends an application element as it did before anything was put into it; undefined where wiring did not open it. */
export function closedAgain(application: XmlElement, added: ReadonlySet<string>): Edit[] | undefined {
  const mark = [...added].find((one) => one.startsWith(opened));
  if (mark === undefined || application.selfClosing) return undefined;
  return [{ start: application.openTag.end - 1, end: application.end, text: mark.slice(opened.length) }];
}
