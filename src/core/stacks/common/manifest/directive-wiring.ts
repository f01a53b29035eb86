import type { Change } from '../../../edits/model.js';
import { appendChild, insertAfter, insertBefore, setAttribute } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import type { XmlElement } from '../../../formats/xml/model.js';
import { attribute, descendants, elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Profile } from '../../../network/model.js';
import { aboutText, toldBy, toldText, type Told } from '../../../network/directives.js';
import type { Directive } from '../../../network/needs.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import type { TextDocument } from '../../../text/document.js';
import type { StackWiring } from '../../stack.js';
import { isTold } from './directives.js';
import { openedMarks } from './meta-data.js';
import type { ManifestWireContext } from './model.js';
import { androidNamespace, toolsNamespace } from './namespaces.js';

/** Marks that wiring added the `tools` namespace. */
export const toolsMark = 'xmlns:tools';

/** Marks that wiring added a directive to an element. */
export const toldMark = (about: string, told: Told): string => `merge ${about} ${toldText(told)}`;

/** Marks that wiring added an element that only carries a directive. */
export const declaredMark = (about: string): string => `merge ${about}`;

/** Adds the merge directives that enrolled networks require to the elements they apply to. */
export function wireDirectives(context: ManifestWireContext): StackWiring {
  const { title, profiles, survey, edition } = context;
  const asking = profiles.filter(({ id }) => isEnrolled(title, id, 'android'));
  const changes = asking.flatMap((profile) =>
    (profile.android?.merge ?? []).flatMap((directive): Change[] => {
      const about = aboutText(directive);
      const stands = survey.facts.filter(
        (fact) =>
          fact.kind === 'merge-directive' &&
          fact.name === about &&
          fact.network === profile.id &&
          fact.module === edition.module,
      );
      const lacking = toldBy(directive).filter((told) =>
        stands.some(
          (fact) => fact.kind === 'merge-directive' && !fact.given && fact.value === toldText(told),
        ),
      );
      const paths = new Set(
        stands.flatMap((fact) => (fact.kind === 'merge-directive' && !fact.given ? [fact.place.path] : [])),
      );
      const told = [...paths].flatMap((path) => toldChanges(context, profile, directive, { path, lacking }));
      const isNowhere = stands.length === 0 && directive.node !== undefined;
      return isNowhere && !isComponentOf(profile, directive)
        ? [...told, ...declaredChanges(context, profile, directive)]
        : told;
    }),
  );
  return { changes, byHand: [] };
}

/** Whether the profile also declares the element. It is then written together with its directives. */
function isComponentOf({ android }: Profile, { element, name }: Directive): boolean {
  return (
    (android?.components ?? []).some((one) => one.kind === element && one.name === name) ||
    (element === 'uses-permission' && (android?.permissions ?? []).some((one) => one.name === name)) ||
    (element === 'meta-data' && (android?.['meta-data'] ?? []).some((one) => one.key === name))
  );
}

/** The directives of a profile for an element, as attributes. */
export function toldAttributes(
  { android }: Profile,
  about: Pick<Directive, 'element' | 'name'>,
  root: XmlElement,
): string[] {
  const prefix = prefixOf(root, toolsNamespace, 'tools');
  const own = prefixOf(root, androidNamespace, 'android');
  return (android?.merge ?? [])
    .filter(({ element, name }) => element === about.element && name === about.name)
    .flatMap(({ node, replace }) => [
      ...(node === undefined ? [] : [`${prefix}:node="${node}"`]),
      ...(replace.length === 0
        ? []
        : [`${prefix}:replace="${replace.map((one) => one.replace(/^android:/, `${own}:`)).join(',')}"`]),
    ]);
}

/** The edits that add the `tools` namespace where a new element needs it. */
export function toolsEditsFor(
  profile: Profile,
  about: Pick<Directive, 'element' | 'name'>,
  root: XmlElement,
  text: string,
): Edit[] {
  return toldAttributes(profile, about, root).length > 0 ? toolsEdits(root, text) : [];
}

/** What such edits add. */
export function toolsMarksFor(
  profile: Profile,
  about: Pick<Directive, 'element' | 'name'>,
  root: XmlElement,
): string[] {
  return toldAttributes(profile, about, root).length > 0 ? boundMarks(root) : [];
}

/** The edits that add the `tools` namespace where the manifest lacks it. */
function toolsEdits(root: XmlElement, text: string): Edit[] {
  const isBound = root.attributes.some(
    ({ name, value }) => name.startsWith('xmlns:') && value === toolsNamespace,
  );
  return isBound ? [] : setAttribute(root, 'xmlns:tools', toolsNamespace, text);
}

function toldChanges(
  { tree, survey }: ManifestWireContext,
  profile: Profile,
  directive: Directive,
  { path, lacking }: { path: string; lacking: readonly Told[] },
): Change[] {
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  if (!document || !root) return [];
  const stands = survey.facts.filter(
    (fact) => fact.kind === 'merge-directive' && !fact.given && fact.place.path === path,
  );
  const targets = [...descendants(root)].filter((element) => {
    const { line, column } = document.lines.at(element.start);
    return (
      element.name === directive.element &&
      stands.some(({ place }) => place.line === line && place.column === column)
    );
  });
  const about = aboutText(directive);
  return targets.flatMap((element): Change[] => {
    const open = lacking.filter((told) => !isTold(root, element, told));
    if (open.length === 0) return [];
    return [
      {
        ...given(profile, path),
        adds: [...open.map((told) => toldMark(about, told)), ...boundMarks(root)],
        kind: 'edit',
        edits: [...toolsEdits(root, document.text), ...tellEdits(root, element, open, document.text)],
      },
    ];
  });
}

function tellEdits(root: XmlElement, element: XmlElement, told: readonly Told[], text: string): Edit[] {
  const prefix = prefixOf(root, toolsNamespace, 'tools');
  const own = prefixOf(root, androidNamespace, 'android');
  const node = told.find(({ by }) => by === 'node');
  const replaced = told
    .filter(({ by }) => by === 'replace')
    .map(({ value }) => value.replace(/^android:/, `${own}:`));
  const before = attribute(element, `${prefix}:replace`)?.value.trim() ?? '';
  const list = [...(before === '' ? [] : [before]), ...replaced].join(',');
  return [
    ...(node ? setAttribute(element, `${prefix}:node`, node.value, text) : []),
    ...(replaced.length > 0 ? setAttribute(element, `${prefix}:replace`, list, text) : []),
  ];
}

/** Adds an element that only carries a directive to the main manifest. */
function declaredChanges(context: ManifestWireContext, profile: Profile, directive: Directive): Change[] {
  const { tree, manifest: path } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  const { element, name, node } = directive;
  if (!document || !root || !application || name === undefined || node === undefined) return [];
  const about = aboutText(directive);
  const prefix = prefixOf(root, androidNamespace, 'android');
  const attributes = [`${prefix}:name="${escapeXml(name)}"`, ...toldAttributes(profile, directive, root)];
  const lines = [`<${element} ${attributes.join(' ')} />`];
  const edits = putIn(document, root, application, { element, lines });
  return [
    {
      ...given(profile, path),
      adds: [
        declaredMark(about),
        ...boundMarks(root),
        ...(element === 'uses-permission' ? [] : openedMarks(document.text, application)),
      ],
      kind: 'edit',
      edits: [...toolsEdits(root, document.text), ...edits],
    },
  ];
}

function putIn(
  { text, lineEnd }: TextDocument,
  root: XmlElement,
  application: XmlElement,
  { element, lines }: { element: string; lines: string[] },
): Edit[] {
  if (element !== 'uses-permission') return appendChild(text, application, lines, lineEnd);
  const last = elements(root, 'uses-permission').at(-1);
  return last ? [insertAfter(text, last, lines, lineEnd)] : [insertBefore(text, application, lines, lineEnd)];
}

function boundMarks(root: XmlElement): string[] {
  return root.attributes.some(({ value }) => value === toolsNamespace) ? [] : [toolsMark];
}

function given(profile: Profile, path: string) {
  return {
    path,
    platform: 'android' as const,
    network: profile.id,
    topic: 'merge' as const,
    rules: ['manifest/merge-directive-missing'],
  };
}
