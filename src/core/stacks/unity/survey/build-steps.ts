import { readingOf } from '../../../code/source-files.js';
import type { Condition, PlainValue, SourceCall, SourceReading } from '../../../code/source-reading.js';
import { both, type Compiled } from '../../../syntax/compiled.js';
import { reachedUnder, type ConditionTerms } from '../../../syntax/conditions.js';
import { compiledAt, type IsDefined } from '../../../syntax/preprocessor.js';
import type { Place } from '../../../facts/evidence.js';
import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import type { TextDocument } from '../../../text/document.js';
import type { Tree } from '../../../tree/tree.js';
import { unityTerms } from './builds.js';
import type { UnityProject } from './project.js';
import { csharpFiles, isEditorFile } from './sources.js';

/** Stands at the top of the build steps that wiring writes. */
export const stepsMark = 'Build steps written by Syndexa';

/** The calls of the build steps that wiring writes, by which these are read again. */
export const stepCalls = {
  /** asset, field, value */
  asset: 'SetField',
  /** name, value */
  metaData: 'SetMetaData',
  /** key, value, list */
  text: 'SetText',
  /** identifier */
  attribution: 'AddAttribution',
  /** list, type, value, keys */
  entry: 'SetEntry',
} as const;

/** What a step of a build puts into it, for one variant. */
export interface BuildStep {
  does: 'asset' | 'meta-data' | 'key' | 'entry' | 'attribution' | 'linker';
  /** The asset's path, the key of the manifest or property list; empty where the value says all. */
  name: string;
  /** The field of an asset; the type of a key or an entry. */
  more: string;
  /** The keys below the first one that lead to an entry. */
  way?: string[];
  value: string;
  path: string;
  place: Place;
  isOurs: boolean;
}

/** The scripts of the editor that change what is built: those that wiring wrote, and a person's own. */
function stepFiles(tree: Tree, project: UnityProject): string[] {
  return tree.once(`unity build steps of ${project.root}`, () =>
    csharpFiles(tree, project).filter((path) => {
      const text = tree.text(path)?.text ?? '';
      return (
        isEditorFile(tree, project, path) && /\b(?:PlistDocument|PBXProject)\b|Build steps written/.test(text)
      );
    }),
  );
}

export function isOurs(tree: Tree, path: string): boolean {
  return tree.text(path)?.text.slice(0, 200).includes(stepsMark) ?? false;
}

/** The build steps that wiring wrote; undefined where there are none. */
export function existingSteps(tree: Tree, project: UnityProject): { path: string; text: string } | undefined {
  const path = stepFiles(tree, project).find((one) => isOurs(tree, one));
  return path === undefined ? undefined : { path, text: tree.text(path)?.text ?? '' };
}

/** What the build steps of a project put into a build. */
export function buildSteps(
  tree: Tree,
  project: UnityProject,
  edition: SurveyEdition,
  variant: Variant,
  defined: IsDefined,
): BuildStep[] {
  // The editor is what runs the steps, whatever it builds.
  const inEditor: IsDefined = (name) => (name === 'UNITY_EDITOR' ? 'yes' : defined(name));
  const terms = unityTerms(edition, variant);
  return stepFiles(tree, project).flatMap((path) => new StepFile(tree, path, inEditor, terms).steps());
}

type Text = PlainValue & { is: 'text' };

/** One script of the editor, as one build runs it. */
class StepFile {
  private readonly document: TextDocument | undefined;
  private readonly reading: SourceReading;
  private readonly left: (offset: number) => Compiled;
  private readonly isOurs: boolean;

  constructor(
    tree: Tree,
    private readonly path: string,
    inEditor: IsDefined,
    private readonly terms: ConditionTerms,
  ) {
    this.document = tree.text(path);
    this.reading = readingOf(tree, path);
    this.left = compiledAt(this.document?.text ?? '', inEditor);
    this.isOurs = isOurs(tree, path);
  }

  steps(): BuildStep[] {
    const made = this.reading.calls
      .filter((call) => this.isTaken(call.start, call.context.conditions))
      .flatMap((call) => this.stepOf(call) ?? []);
    if (this.isOurs || !this.document?.text.includes('SKAdNetworkItems')) return made;
    const listed = this.reading.strings
      .filter(({ value, start }) => /^[a-z0-9]{4,60}\.skadnetwork$/i.test(value) && this.left(start) !== 'no')
      .map(({ value, start, end }) =>
        this.step('attribution', { is: 'text', value, start: start - 1, end: end + 1 }),
      );
    return [...made, ...listed];
  }

  private stepOf(call: SourceCall): BuildStep | undefined {
    const [first, second, third] = [0, 1, 2].map((at) => this.valueOf(call, at));
    const name = call.name.split('.').at(-1);
    if (this.isOurs && name === stepCalls.asset && first && second && third)
      return this.step('asset', third, first.value, second.value);
    if (this.isOurs && name === stepCalls.metaData && first && second)
      return this.step('meta-data', second, first.value);
    if (this.isOurs && name === stepCalls.text && first && second)
      return this.step('key', second, first.value, 'string');
    if (this.isOurs && name === stepCalls.attribution && first) return this.step('attribution', first);
    if (this.isOurs && name === stepCalls.entry && second && third) return this.entry(call, second, third);
    if (name === 'AddBuildProperty' && second?.value === 'OTHER_LDFLAGS' && third)
      return this.step('linker', third);
    if (name === 'SetString' && first && second && first.value !== 'SKAdNetworkIdentifier')
      return this.step('key', second, first.value, 'string');
    if (name !== 'SetBoolean' || !first) return undefined;
    const written = call.arguments[1]?.values[0];
    const value = written?.is === 'name' ? written.name : '';
    if (value !== 'true' && value !== 'false') return undefined;
    return this.step('key', { ...first, value }, first.value, 'boolean');
  }

  /** An entry of the property list, as our own steps set it. */
  private entry(call: SourceCall, type: Text, value: Text): BuildStep | undefined {
    const [key, ...way] = call.arguments.slice(3).map((_, at) => this.valueOf(call, at + 3)?.value);
    if (key === undefined) return undefined;
    return { ...this.step('entry', value, key, type.value), way: way.flatMap((one) => one ?? []) };
  }

  private step(does: BuildStep['does'], value: Text, name = '', more = ''): BuildStep {
    const start = value.start + 1;
    const place = placeAt(this.path, this.document, { start, end: Math.max(start, value.end - 1) });
    return { does, name, more, value: value.value, path: this.path, place, isOurs: this.isOurs };
  }

  /** The value of an argument in this variant, among those that it may have. */
  private valueOf(call: SourceCall, at: number): Text | undefined {
    const values = call.arguments[at]?.values ?? [];
    return values.find((value): value is Text => {
      const written = this.reading.strings.find(({ start }) => value.start <= start && start <= value.end);
      return value.is === 'text' && (!written || this.isTaken(value.start, written.context.conditions));
    });
  }

  private isTaken(offset: number, conditions: readonly Condition[]): boolean {
    const state = conditions.reduce(
      (so, { text, holds }) => both(so, reachedUnder(holds ? text : `!(${text})`, this.terms)),
      this.left(offset),
    );
    return state !== 'no';
  }
}
