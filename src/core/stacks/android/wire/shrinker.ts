import type { ByHand, Change } from '../../../edits/model.js';
import { isEnrolled } from '../../../roster/expected.js';
import type { StackWiring } from '../../stack.js';
import type { AndroidWireContext } from './context.js';

const rules = ['build/shrinker-rule-missing'];

/** Says that wiring added a rule. */
export const shrinkerMark = (rule: string): string => `shrinker rule ${rule}`;

/** The shrinker rules that enrolled networks need, at the end of the files that builds take in. */
export function wireShrinker({
  tree,
  title,
  profiles,
  survey,
  edition,
  model,
}: AndroidWireContext): StackWiring {
  const changes: Change[] = [];
  const byHand: ByHand[] = [];
  const shrinking = survey.facts.filter(
    (fact) => fact.kind === 'shrinking' && fact.module === edition.module,
  );
  const added = new Set<string>();
  for (const { id, name, android } of profiles.filter((one) => isEnrolled(title, one.id, 'android'))) {
    for (const { rule, why } of android?.shrinker ?? []) {
      const held = survey.facts.filter(
        (fact) => fact.kind === 'shrinker-rule' && fact.network === id && fact.name === rule,
      );
      const lacking = shrinking.filter(({ variants }) =>
        variants.some((variant) => !held.some((fact) => fact.variants.includes(variant))),
      );
      for (const path of new Set(lacking.map(({ value }) => value))) {
        const document = tree.text(path);
        if (path === '' || !document) {
          byHand.push({
            platform: 'android',
            network: id,
            rule: rules[0] ?? null,
            what: `Name a file of your own with proguardFiles in the build type that is shrunk, and put this rule into it: ${rule}`,
            why: `${name}: ${why}`,
            where: model.module.script,
          });
          continue;
        }
        if (added.has(`${path} ${rule}`)) continue;
        added.add(`${path} ${rule}`);
        const { text, lineEnd } = document;
        const before = text === '' || /[\r\n]$/.test(text) ? '' : lineEnd;
        changes.push({
          path,
          platform: 'android',
          network: id,
          topic: 'shrinker',
          rules,
          adds: [shrinkerMark(rule)],
          kind: 'edit',
          edits: [
            { start: text.length, end: text.length, text: `${before}${rule}${before === '' ? lineEnd : ''}` },
          ],
        });
      }
    }
  }
  return { changes, byHand };
}
