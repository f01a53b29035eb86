import { compareVersions } from '../../text/versions.js';
import { isEnrolled } from '../../roster/expected.js';
import type { Change } from '../../wiring/model.js';
import { literalFixes } from '../literal-fix.js';
import type { StackWiring } from '../stack.js';
import type { IosWireContext } from './wire-context.js';

/** The deployment target, raised to what enrolled networks need: only when that is asked for. */
export function wireLevels({ tree, title, profiles, survey, extras, model }: IosWireContext): StackWiring {
  const asking = profiles.flatMap(({ id, ios }) => {
    const value = isEnrolled(title, id, 'ios') ? ios?.['deployment-target']?.value : undefined;
    return value === undefined ? [] : [{ network: id, value }];
  });
  const wanted = asking
    .map(({ value }) => value)
    .sort(compareVersions)
    .at(-1);
  if (!extras.levels || wanted === undefined) return { changes: [], byHand: [] };
  const rule = 'build/platform-level-too-low';
  const low = survey.facts.filter(
    ({ kind, module, value }) =>
      kind === 'deployment-target' && module === model.target.name && compareVersions(value, wanted) < 0,
  );
  if (low.length === 0) return { changes: [], byHand: [] };
  const fixes = literalFixes(
    tree,
    low.flatMap(({ variants, chain, value }) =>
      variants.map((variant) => ({ variant, chain, value, wanted })),
    ),
  );
  if (!fixes) {
    const what = `Raise IPHONEOS_DEPLOYMENT_TARGET to ${wanted}.`;
    const why = 'Where it is written cannot be told for sure, or serves something else too.';
    const where = low[0]?.place.path ?? null;
    return { changes: [], byHand: [{ platform: 'ios', network: null, rule, what, why, where }] };
  }
  const needing = asking.filter(({ value }) => low.some((fact) => compareVersions(fact.value, value) < 0));
  return {
    changes: needing.flatMap(({ network }) =>
      fixes.map(({ path, variants, ...edit }): Change => ({
        path,
        platform: 'ios',
        network,
        topic: 'levels',
        rules: [rule],
        variants,
        edits: [edit],
      })),
    ),
    byHand: [],
  };
}
