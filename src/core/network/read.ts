import { platformLabels, withPlatformLabels } from '../words/platform-labels.js';
import { inOurWords } from '../text/issue-text.js';
import { valueAt } from '../text/own-values.js';
import { PatternError, readPattern, type Pattern } from '../text/patterns.js';
import { fieldProblems, readYaml, type FieldProblem, type YamlDocument } from '../formats/yaml/read.js';
import { mismatches } from './consistency.js';
import { withExamples } from './examples.js';
import { idKinds, Profile, type IdKind } from './model.js';
import { samplesOf } from './samples.js';

/**
 * Reads a network profile and checks it whole: its shape, that its patterns are bounded, and that its own
 * samples match them. A profile is returned only when nothing is wrong with it.
 */
export function readProfile(text: string): { profile: Profile | null; problems: FieldProblem[] } {
  const yaml = readYaml(text);
  if (yaml.problems.length > 0) return { profile: null, problems: yaml.problems };
  const parsed = Profile.safeParse(yaml.value, inOurWords);
  if (!parsed.success) return { profile: null, problems: withExamples(fieldProblems(parsed.error, yaml)) };
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
  const report: Report = (field, message, fix) => ({
    field: [...path, ...field].join('.'),
    message,
    fix,
    place: yaml.placeOf([...path, ...field]),
  });
  let pattern: Pattern;
  try {
    pattern = readPattern(kind.pattern);
  } catch (error) {
    if (!(error instanceof PatternError)) throw error;
    const fix = 'Write it in the syntax of RE2: without lookaround and backreferences.';
    return [report(['pattern'], `It cannot be read as a regular expression: ${error.message}.`, fix)];
  }
  const problems = sampleProblems(kind, pattern, report);
  if (kind.platforms && !pattern.names.includes('platform')) {
    problems.push(
      report(
        ['platforms'],
        'The pattern names no group `platform`.',
        'Write (?<platform>…) around the part that shows it.',
      ),
    );
  }
  return problems;
}

type Report = (field: string[], message: string, fix: string) => FieldProblem;

/** What is wrong with the samples of a kind, each fault once. */
function sampleProblems(kind: IdKind, pattern: Pattern, report: Report): FieldProblem[] {
  const samples = samplesOf(kind);
  const odd = samples.filter(({ id }) => !pattern.matches(id));
  const bare = samples.filter(
    ({ id }) => kind.needles.length > 0 && !kind.needles.some((needle) => id.includes(needle)),
  );
  const problems: FieldProblem[] = [];
  // A pattern that no sample matches is one fault, and not as many as there are samples.
  if (odd.length > 1 && odd.length === samples.length) {
    const ids = [...new Set(odd.map(({ id }) => id))].join(', ');
    problems.push(
      report(
        ['pattern'],
        `No sample matches it: ${ids}.`,
        'Write a pattern that matches each ID completely.',
      ),
    );
  } else
    for (const { id, path: field } of odd)
      problems.push(
        report(
          ['samples', ...field],
          `The sample ${id} does not match the pattern.`,
          `Give one that matches ${kind.pattern}.`,
        ),
      );
  if (bare.length > 0) {
    const ids = [...new Set(bare.map(({ id }) => id))].join(', ');
    problems.push(
      report(
        ['needles'],
        `None of them is in ${ids}.`,
        'Name a text that every ID contains, or omit needles if there is none.',
      ),
    );
  }
  for (const { id, path: field, platform } of samples) {
    const code = pattern.groupsOf(id)?.get('platform');
    const named = code === undefined ? undefined : valueAt(kind.platforms, code);
    if (named && named !== platform)
      problems.push(
        report(
          ['samples', ...field],
          `The sample ${id} is one for ${withPlatformLabels(named)}.`,
          `Give one for ${platformLabels[platform]}.`,
        ),
      );
  }
  return problems;
}
