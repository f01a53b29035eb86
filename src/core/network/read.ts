import { valueAt } from '../text/own-values.js';
import safeRegex from 'safe-regex2';
import { fieldProblems, readYaml, type FieldProblem, type YamlDocument } from '../formats/yaml/read.js';
import { mismatches } from './consistency.js';
import { idKinds, Profile, type IdKind } from './model.js';
import { samplesOf } from './samples.js';

/**
 * Reads a network profile and checks it whole: its shape, that its patterns are bounded, and that its own
 * samples match them. A profile is returned only when nothing is wrong with it.
 */
export function readProfile(text: string): { profile: Profile | null; problems: FieldProblem[] } {
  const yaml = readYaml(text);
  if (yaml.problems.length > 0) return { profile: null, problems: yaml.problems };
  const parsed = Profile.safeParse(yaml.value);
  if (!parsed.success) return { profile: null, problems: fieldProblems(parsed.error, yaml) };
  const problems = idKinds.flatMap((kind) => {
    const rules = parsed.data.ids[kind];
    return rules ? idProblems(rules, ['ids', kind], yaml) : [];
  });
  // Patterns have to be sound before they can be held against each other.
  for (const { field, message, fix } of problems.length > 0 ? [] : mismatches(parsed.data))
    problems.push({ field: field.join('.'), message, fix, place: yaml.placeOf(field) });
  return { profile: problems.length === 0 ? parsed.data : null, problems };
}

function idProblems(kind: IdKind, path: string[], yaml: YamlDocument): FieldProblem[] {
  const report = (field: string[], message: string, fix: string): FieldProblem => ({
    field: [...path, ...field].join('.'),
    message,
    fix,
    place: yaml.placeOf([...path, ...field]),
  });
  let pattern: RegExp;
  try {
    pattern = new RegExp(`^(?:${kind.pattern})$`, 'u');
  } catch (error) {
    return [report(['pattern'], `It is no regular expression: ${String(error)}`, 'Correct the expression.')];
  }
  if (!safeRegex(kind.pattern)) {
    const fix = 'Repeat nothing that is itself repeated: write [A-Z0-9]{8} rather than ([A-Z0-9]+)+.';
    return [report(['pattern'], 'It could take endless time on a long text.', fix)];
  }
  const problems = samplesOf(kind).flatMap(({ id, path: field, platform }) => {
    const match = pattern.exec(id);
    if (!match)
      return [
        report(
          ['samples', ...field],
          `The sample ${id} does not match the pattern.`,
          `Give one that matches ${kind.pattern}.`,
        ),
      ];
    if (!kind.needles.some((needle) => id.includes(needle))) {
      return [
        report(
          ['needles'],
          `The sample ${id} holds none of the needles.`,
          'Name a text that stands in every ID.',
        ),
      ];
    }
    const code = match.groups?.platform;
    const named = code === undefined ? undefined : valueAt(kind.platforms, code);
    if (named && named !== platform) {
      return [
        report(['samples', ...field], `The sample ${id} is one for ${named}.`, `Give one for ${platform}.`),
      ];
    }
    return [];
  });
  if (kind.platforms && !kind.pattern.includes('(?<platform>')) {
    problems.push(
      report(
        ['platforms'],
        'The pattern names no group `platform`.',
        'Write (?<platform>…) around the part that tells it.',
      ),
    );
  }
  return problems;
}
