import type { Finding } from '../checks/model.js';
import type { Profile } from '../network/model.js';
import type { Change, WiringChoice } from '../edits/model.js';
import type { Outcome } from './outcomes.js';

/** Files as some changes leave them, and the findings that are left then. */
export interface Trial {
  outcomes: Outcome[];
  remaining: Finding[];
}

/** The profiles of the named networks; all when none is named. */
export function chosen(profiles: readonly Profile[], networks: readonly string[] = []): readonly Profile[] {
  return networks.length === 0 ? profiles : profiles.filter(({ id }) => networks.includes(id));
}

/**
 * Tries the changes that a choice asks for. For rules these are the changes that fix one of them, on the platforms that
 * have such findings. Where these alone would break something else, or fix less than they could, all changes of their
 * groups are taken along.
 */
export function narrowed(
  all: readonly Change[],
  { rules = [], variants = [], groups = [] }: Partial<WiringChoice>,
  findings: readonly Finding[],
  trial: (changes: readonly Change[]) => Trial,
): Trial {
  const wanted = all.filter(
    (change) =>
      (groups.length === 0 || groups.includes(groupOf(change))) &&
      (variants.length === 0 || !change.variants || change.variants.some((name) => isNamed(name, variants))),
  );
  if (rules.length === 0) return trial(wanted);
  const due = findings.filter(({ rule }) => rules.includes(rule));
  const precise = wanted.filter(({ platform, also = [], ...change }) =>
    due.some(
      (finding) =>
        change.rules.includes(finding.rule) &&
        (finding.platform === null || [platform, ...also].includes(finding.platform)),
    ),
  );
  if (precise.length === 0) return trial([]);
  const whole = new Set(precise.map(groupOf));
  const wide = wanted.filter((change) => whole.has(groupOf(change)));
  const [small, large] = [trial(precise), trial(wide)];
  const known = new Set(findings.map(({ fingerprint }) => fingerprint));
  const harms = small.remaining.some(({ fingerprint }) => !known.has(fingerprint));
  const count = ({ remaining }: Trial) => remaining.filter(({ rule }) => rules.includes(rule)).length;
  return harms || count(small) > count(large) ? large : small;
}

/** Whether a variant is among some names; upper and lower case are the same. */
export function isNamed(variant: string, names: readonly string[]): boolean {
  return names.some((name) => name.toLowerCase() === variant.toLowerCase());
}

/** The ID by which a change’s group may be chosen. */
export function groupOf({ platform, network, topic }: Change): string {
  return `${platform}/${network ?? 'all'}/${topic}`;
}
