import { readingOf } from '../../code/source-files.js';
import type { Condition, PlainValue, SourceCall } from '../../code/source-reading.js';
import { both } from '../../syntax/compiled.js';
import { reachedUnder } from '../../syntax/conditions.js';
import { compiledAt, type IsDefined } from '../../code/preprocessor.js';
import type { SurveyEdition, Variant } from '../../facts/model.js';
import type { Place } from '../../facts/model.js';
import { placeAt } from '../../facts/place.js';
import type { Tree } from '../../tree/tree.js';
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
  /** identifier */
  attribution: 'AddAttribution',
} as const;

/** What a step of a build puts into it, for one variant. */
export interface BuildStep {
  does: 'asset' | 'meta-data' | 'key' | 'attribution' | 'linker';
  /** The asset's path, the key of the manifest or property list; empty where the value says all. */
  name: string;
  /** The field of an asset; the type of a key. */
  more: string;
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
export function standingSteps(tree: Tree, project: UnityProject): { path: string; text: string } | undefined {
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
  return stepFiles(tree, project).flatMap((path) => {
    const document = tree.text(path);
    const reading = readingOf(tree, path);
    const left = compiledAt(document?.text ?? '', inEditor);
    const ours = isOurs(tree, path);
    const isTaken = (offset: number, conditions: readonly Condition[]) =>
      conditions.reduce(
        (state, { text, holds }) => both(state, reachedUnder(holds ? text : `!(${text})`, terms)),
        left(offset),
      ) !== 'no';
    /** The value of an argument in this variant, among those that it may have. */
    const valueOf = (call: SourceCall, at: number): (PlainValue & { is: 'text' }) | undefined => {
      const values = call.arguments[at]?.values ?? [];
      return values.find((value): value is PlainValue & { is: 'text' } => {
        const written = reading.strings.find(({ start }) => value.start <= start && start <= value.end);
        return value.is === 'text' && (!written || isTaken(value.start, written.context.conditions));
      });
    };
    const made: BuildStep[] = [];
    const add = (does: BuildStep['does'], value: PlainValue & { is: 'text' }, name = '', more = '') => {
      const place = placeAt(path, document, {
        start: value.start + 1,
        end: Math.max(value.start + 1, value.end - 1),
      });
      made.push({ does, name, more, value: value.value, path, place, isOurs: ours });
    };
    for (const call of reading.calls) {
      if (!isTaken(call.start, call.context.conditions)) continue;
      const [first, second, third] = [0, 1, 2].map((at) => valueOf(call, at));
      const name = call.name.split('.').at(-1);
      if (ours && name === stepCalls.asset && first && second && third)
        add('asset', third, first.value, second.value);
      else if (ours && name === stepCalls.metaData && first && second) add('meta-data', second, first.value);
      else if (ours && name === stepCalls.attribution && first) add('attribution', first);
      else if (name === 'AddBuildProperty' && second?.value === 'OTHER_LDFLAGS' && third)
        add('linker', third);
      else if (name === 'SetString' && first && second && !/^SKAdNetworkIdentifier$/.test(first.value))
        add('key', second, first.value, 'string');
      else if (name === 'SetBoolean' && first) {
        const written = call.arguments[1]?.values[0];
        const value = written?.is === 'name' ? written.name : '';
        if (value === 'true' || value === 'false') add('key', { ...first, value }, first.value, 'boolean');
      }
    }
    if (!ours && document?.text.includes('SKAdNetworkItems'))
      for (const { value, start, end } of reading.strings)
        if (/^[a-z0-9]{4,60}\.skadnetwork$/i.test(value) && left(start) !== 'no')
          add('attribution', { is: 'text', value, start: start - 1, end: end + 1 });
    return made;
  });
}
