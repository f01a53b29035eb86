import type { ByHand, Change } from '../../../edits/model.js';
import { appendToBlock, blockAt } from '../../../formats/gradle/edit.js';
import { literal } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import { indentAt } from '../../../formats/xml/edit.js';
import type { Profile } from '../../../network/model.js';
import { desugarLibrary } from '../../../network/wanted.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { Edit } from '../../../text/edit.js';
import type { TextDocument } from '../../../text/document.js';
import { compareVersions } from '../../../text/versions.js';
import type { StackWiring } from '../../stack.js';
import { settingOf } from '../../common/gradle/parts.js';
import { statementsOf } from '../../common/gradle/catalogs.js';
import { compileOptions, desugarNames, javaSettings } from '../survey/compile-options.js';
import type { AndroidWireContext } from './context.js';

const platform = 'android' as const;
const topic = 'compile-options' as const;

/** Says that wiring switched desugaring on, and that it added the library for it. */
export const desugarMark = 'desugaring switched on';
export const desugarLibraryMark = `dependency ${desugarLibrary}`;
export const optionsMark = 'compileOptions block';

/** The Java level and desugaring that enrolled networks need. */
export function wireCompileOptions(context: AndroidWireContext): StackWiring {
  const { title, profiles } = context;
  const asking = profiles.filter(({ id }) => isEnrolled(title, id, platform));
  const parts = [raisedLevel(context, asking), desugared(context, asking)];
  return {
    changes: parts.flatMap(({ changes }) => changes),
    byHand: parts.flatMap(({ byHand }) => byHand),
  };
}

function raisedLevel({ tree, model, survey, edition }: AndroidWireContext, asking: Profile[]): StackWiring {
  const wanted = Math.max(0, ...asking.map(({ android }) => android?.java?.min ?? 0));
  const low = survey.facts.filter(
    (fact) =>
      fact.kind === 'java-level' &&
      fact.module === edition.module &&
      compareVersions(fact.value, String(wanted)) < 0,
  );
  if (low.length === 0) return { changes: [], byHand: [] };
  const needing = asking.filter(({ android }) =>
    low.some(({ value }) => compareVersions(value, String(android?.java?.min ?? 0)) < 0),
  );
  const rules = ['build/java-level-too-low'];
  const options = compileOptions(model);
  const settings = [
    settingOf(options, ['targetCompatibility', 'setTargetCompatibility']),
    settingOf(options, ['sourceCompatibility', 'setSourceCompatibility']),
    javaSettings(model).kotlin,
  ].filter((setting) => setting !== undefined);
  const edits = settings.map(({ value, path, conditional }) => {
    const text = tree.text(path)?.text.slice(value.start, value.end) ?? '';
    const raised = conditional ? undefined : raisedText(text, wanted);
    return raised === undefined
      ? undefined
      : { path, edit: { start: value.start, end: value.end, text: raised } };
  });
  // Java and Kotlin must be raised together, and a setting that is not there is for a person to place.
  if (settings.length === 0 || edits.some((edit) => edit === undefined)) {
    const [fact] = low;
    return {
      changes: [],
      byHand: needing.map(({ id, name, android }): ByHand => ({
        platform,
        network: id,
        rule: rules[0] ?? null,
        what: `Compile Java and Kotlin for level ${wanted}: sourceCompatibility and targetCompatibility in compileOptions, jvmTarget of Kotlin, or one tool chain for both.`,
        why: `${name}: ${android?.java?.why ?? ''} The level is not set here as a plain value in both places.`,
        where: fact?.place.path ?? model.module.script,
      })),
    };
  }
  return {
    changes: needing.flatMap(({ id }) =>
      edits.flatMap((one): Change[] =>
        one ? [{ path: one.path, platform, network: id, topic, rules, kind: 'edit', edits: [one.edit] }] : [],
      ),
    ),
    byHand: [],
  };
}

/** A Java level in the form that it is written in; undefined where the form is none that is known. */
function raisedText(text: string, level: number): string | undefined {
  if (/^(?:JavaVersion\.)?VERSION_\d+(?:_\d+)?$/.test(text))
    return text.replace(/\d+(?:_\d+)?$/, String(level));
  if (/^(?:JvmTarget\.)?JVM_\d+(?:_\d+)?$/.test(text)) return text.replace(/\d+(?:_\d+)?$/, String(level));
  if (/^JavaVersion\.VERSION_\d+(?:_\d+)?\.toString\(\)$/.test(text))
    return text.replace(/\d+(?:_\d+)?(?=\.)/, String(level));
  if (/^(["'])(?:1\.)?\d+\1$/.test(text)) return text.replace(/(?:1\.)?\d+/, String(level));
  return /^(?:1\.)?\d+$/.test(text) ? String(level) : undefined;
}

function desugared(context: AndroidWireContext, asking: Profile[]): StackWiring {
  const { tree, model, survey, edition } = context;
  const needing = asking.filter(({ android }) => android?.desugaring);
  const held = survey.facts.filter((fact) => fact.kind === 'desugaring' && fact.module === edition.module);
  const isOn = held.some(({ name, value }) => name === 'switch' && value === 'true');
  const hasLibrary = held.some(({ name }) => name === desugarLibrary);
  const isOpen = survey.unresolved.some(
    ({ kind, module }) => kind === 'desugaring' && module === edition.module,
  );
  if (needing.length === 0 || (isOn && hasLibrary) || isOpen) return { changes: [], byHand: [] };
  const { script } = model.module;
  const document = tree.text(script);
  const switched = isOn ? { edits: [], adds: [] } : document && switchedOn(context, document);
  const library = hasLibrary ? { edits: [], adds: [] } : document && libraryAdded(context, document, needing);
  const rules = ['build/desugaring-missing'];
  if (!switched || !library)
    return {
      changes: [],
      byHand: needing.map(({ id, name, android }): ByHand => ({
        platform,
        network: id,
        rule: rules[0] ?? null,
        what: `Switch core library desugaring on in compileOptions, and add ${desugarLibrary}:${android?.desugaring?.version ?? ''} as coreLibraryDesugaring.`,
        why: `${name}: ${android?.desugaring?.why ?? ''} The script has no blocks to add them to.`,
        where: script,
      })),
    };
  return {
    changes: needing.map(({ id }): Change => ({
      path: script,
      platform,
      network: id,
      topic,
      rules,
      adds: [...switched.adds, ...library.adds],
      kind: 'edit',
      edits: [...switched.edits, ...library.edits],
    })),
    byHand: [],
  };
}

interface Added {
  edits: Edit[];
  adds: string[];
}

/** The switch: its value if it exists, otherwise a line in the last block of options, or a new block. */
function switchedOn({ tree, model }: AndroidWireContext, { text, lineEnd }: TextDocument): Added | undefined {
  const { script } = model.module;
  const found = settingOf(compileOptions(model), desugarNames);
  if (found)
    return found.path === script && !found.conditional && isFalse(found.value)
      ? { edits: [{ start: found.value.start, end: found.value.end, text: 'true' }], adds: [] }
      : undefined;
  const line = script.endsWith('.kts')
    ? 'isCoreLibraryDesugaringEnabled = true'
    : 'coreLibraryDesugaringEnabled true';
  const options = blockAt(statementsOf(tree, script), ['android', 'compileOptions']);
  if (options) return { edits: [appendToBlock(text, options, line, lineEnd)], adds: [desugarMark] };
  const android = blockAt(statementsOf(tree, script), ['android']);
  if (!android) return undefined;
  const last = android.body?.at(-1);
  const inner = last ? indentAt(text, last.start) : `${indentAt(text, android.start)}    `;
  const unit = inner.slice(indentAt(text, android.start).length) || '    ';
  const block = `compileOptions {${lineEnd}${inner}${unit}${line}${lineEnd}${inner}}`;
  return { edits: [appendToBlock(text, android, block, lineEnd)], adds: [desugarMark, optionsMark] };
}

function isFalse(value: Expression): boolean {
  return literal(value) === 'false' || (value.type === 'name' && value.name === 'false');
}

function libraryAdded(
  { tree, model }: AndroidWireContext,
  { text, lineEnd }: TextDocument,
  needing: Profile[],
): Added | undefined {
  const { script } = model.module;
  const block = blockAt(statementsOf(tree, script), ['dependencies']);
  if (!block) return undefined;
  const version = needing
    .map(({ android }) => android?.desugaring?.version ?? '')
    .sort(compareVersions)
    .at(-1);
  const coordinate = `${desugarLibrary}:${version ?? ''}`;
  const line = script.endsWith('.kts')
    ? `coreLibraryDesugaring("${coordinate}")`
    : `coreLibraryDesugaring '${coordinate}'`;
  return { edits: [appendToBlock(text, block, line, lineEnd)], adds: [desugarLibraryMark] };
}
