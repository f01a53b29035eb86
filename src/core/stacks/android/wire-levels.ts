import { compareVersions } from '../../text/versions.js';
import { isEnrolled } from '../../roster/expected.js';
import type { ByHand, Change } from '../../wiring/model.js';
import { literalFixes } from '../literal-fix.js';
import type { StackWiring } from '../stack.js';
import type { AndroidWireContext } from './wire-context.js';

const levels = ['min-sdk', 'compile-sdk'] as const;

/** Minimum and compile SDK, raised to what enrolled networks need: only when that is asked for. */
export function wireLevels(context: AndroidWireContext): StackWiring {
  const { tree, title, profiles, survey, extras } = context;
  if (!extras.levels) return { changes: [], byHand: [] };
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const enrolled = profiles.filter(({ id }) => isEnrolled(title, id, 'android'));
  for (const level of levels) {
    const asking = enrolled.flatMap(({ id, android }) => {
      const value = android?.[level]?.value;
      return value === undefined ? [] : [{ network: id, value }];
    });
    const wanted = Math.max(0, ...asking.map(({ value }) => value));
    const low = survey.facts.filter(
      (fact) =>
        fact.kind === level &&
        fact.module === context.edition.module &&
        compareVersions(fact.value, String(wanted)) < 0,
    );
    if (low.length === 0) continue;
    const fixes = literalFixes(
      tree,
      low.flatMap(({ variants, chain, value }) =>
        variants.map((variant) => ({ variant, chain, value, wanted: String(wanted) })),
      ),
    );
    const base = { platform: 'android' as const, rules: ['build/platform-level-too-low'] };
    if (fixes)
      for (const { network } of asking.filter(({ value }) => low.some((fact) => Number(fact.value) < value)))
        changes.push(
          ...fixes.map(({ path, variants, ...edit }): Change => ({
            ...base,
            path,
            network,
            topic: 'levels',
            variants,
            edits: [edit],
          })),
        );
    else
      byHand.push({
        platform: 'android',
        network: null,
        rule: 'build/platform-level-too-low',
        what: `Raise the ${level === 'min-sdk' ? 'minimum' : 'compile'} SDK to ${wanted}.`,
        why: 'Where it is written cannot be told for sure, or serves something else too.',
        where: low[0]?.place.path ?? null,
      });
  }
  return { changes, byHand };
}
