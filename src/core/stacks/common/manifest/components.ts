import { appendChild } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import { elements, prefixOf } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { Place } from '../../../facts/evidence.js';
import type { AndroidNeeds, Profile } from '../../../network/model.js';
import { mendedAttribute } from '../../../network/wanted.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Change } from '../../../edits/model.js';
import type { Edit } from '../../../text/edit.js';
import { valueAt } from '../../../text/own-values.js';
import type { Span } from '../../../text/problem.js';
import type { Tree } from '../../../tree/tree.js';
import type { StackWiring } from '../../stack.js';
import { openedMarks } from './meta-data.js';
import { toldAttributes, toolsEditsFor, toolsMarksFor } from './directive-wiring.js';
import { declares, lackingIn, removalSteps } from './removed.js';
import { androidNamespace } from './namespaces.js';
import type { ManifestWireContext } from './model.js';

type Component = AndroidNeeds['components'][number];

/** Components that enrolled networks need and some variant lacks, declared in the main manifest. */
export function wireComponents(context: ManifestWireContext): StackWiring {
  const { tree, manifest: path, title, profiles, survey, edition } = context;
  const document = tree.text(path);
  const root = tree.read(path, readXml)?.root;
  const application = root && elements(root, 'application')[0];
  if (!document || !application || !root.attributes.some(({ value }) => value === androidNamespace))
    return { changes: [], byHand: [] };
  const prefix = prefixOf(root, androidNamespace, 'android');
  const declared = ({ kind, name }: Component) =>
    survey.facts.filter(
      (fact) =>
        fact.kind === 'component' &&
        fact.name === kind &&
        fact.value === name &&
        fact.module === edition.module,
    );
  const enrolled = profiles.filter(({ id }) => isEnrolled(title, id, 'android'));
  const byHand = enrolled.flatMap((profile) =>
    (profile.android?.components ?? []).flatMap((component) => {
      const { removals } = lackingIn(edition.variants, declared(component));
      return removalSteps(profile, 'manifest/component-missing', removals);
    }),
  );
  const changes = enrolled.flatMap((profile) =>
    (profile.android?.components ?? [])
      .filter(
        (component) =>
          lackingIn(edition.variants, declared(component)).isLacking &&
          !declares(root, application, component.kind, component.name),
      )
      .map((component): Change => ({
        path,
        platform: 'android',
        network: profile.id,
        topic: 'components',
        rules: ['manifest/component-missing'],
        adds: [
          ...openedMarks(document.text, application),
          ...toolsMarksFor(profile, aboutOf(component), root),
        ],
        kind: 'edit',
        edits: [
          ...toolsEditsFor(profile, aboutOf(component), root, document.text),
          ...appendChild(
            document.text,
            application,
            componentLines(component, prefix, toldAttributes(profile, aboutOf(component), root)),
            document.lineEnd,
          ),
        ],
      })),
  );
  return { changes: [...changes, ...enrolled.flatMap((profile) => mended(context, profile))], byHand };
}

/** Writes the attributes that a network requires of its components where they are declared otherwise. */
function mended({ tree, survey, edition }: ManifestWireContext, profile: Profile): Change[] {
  const wanted = new Map<string, { path: string; edit: Edit }>();
  for (const { kind, name, attributes } of profile.android?.components ?? [])
    for (const fact of survey.facts) {
      if (fact.kind !== 'component' || fact.name !== kind || fact.value !== name) continue;
      if (fact.effective !== true || fact.module !== edition.module) continue;
      for (const [attribute, needed] of Object.entries(attributes)) {
        const key = attribute.replace(/^android:/, '');
        const found = valueAt(fact.attributes ?? {}, key);
        const place = valueAt(fact.places ?? {}, key);
        const text = found === undefined ? undefined : mendedAttribute(key, found, needed);
        const span = place && spanOf(tree, place);
        if (!place || !span || text === undefined) continue;
        const edit = { ...span, text: escapeXml(text) };
        wanted.set(`${place.path} ${span.start}`, { path: place.path, edit });
      }
    }
  return [...wanted.values()].map(({ path, edit }) => ({
    path,
    platform: 'android',
    network: profile.id,
    topic: 'components',
    rules: ['manifest/component-differs'],
    kind: 'edit',
    edits: [edit],
  }));
}

/** The value of an attribute in its file, by the place that a fact gives for it. */
function spanOf(tree: Tree, { path, line, column, endLine, endColumn }: Place): Span | undefined {
  const lines = tree.text(path)?.lines;
  if (!lines || endLine === undefined || endColumn === undefined) return undefined;
  return { start: lines.lineStart(line) + column - 1, end: lines.lineStart(endLine) + endColumn - 1 };
}

const aboutOf = ({ kind, name }: Component) => ({ element: kind, name });

function componentLines(
  { kind, name, attributes, actions }: Component,
  prefix: string,
  told: readonly string[],
): string[] {
  const given = Object.entries(attributes).map(
    ([key, value]) => `  ${key.replace(/^android:/, `${prefix}:`)}="${escapeXml(value)}"`,
  );
  const more = told.map((attribute) => `  ${attribute}`);
  const lines = [`<${kind}`, `  ${prefix}:name="${escapeXml(name)}"`, ...given, ...more];
  const last = lines.length - 1;
  if (actions.length === 0) return lines.map((line, at) => (at === last ? `${line} />` : line));
  return [
    ...lines.map((line, at) => (at === last ? `${line}>` : line)),
    '  <intent-filter>',
    ...actions.map((action) => `    <action ${prefix}:name="${escapeXml(action)}" />`),
    '  </intent-filter>',
    `</${kind}>`,
  ];
}
