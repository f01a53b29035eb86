import type { CollectPlan } from '../api/trees.js';

/** Tells by a file's name, and its folder's, whether it is wanted: always, or when it holds a needle. */
export type FileMatcher = (name: string, parent: string) => 'always' | 'needle' | null;

/** Extensions beyond these are looked up again each time. */
const maxExtensions = 2_000;

function extensionOf(name: string): string {
  const dot = name.lastIndexOf('.');
  return dot < 0 ? '' : name.slice(dot);
}

/** Names that are wanted whatever the files hold, and the rules that ask for more. */
function rulesOf({ rules }: CollectPlan): { always: Set<string>; others: CollectPlan['rules'] } {
  const plain = ({ name, suffix, parent, needle }: CollectPlan['rules'][number]) =>
    name !== undefined && suffix === undefined && parent === undefined && needle !== true;
  return {
    always: new Set(rules.flatMap((rule) => (plain(rule) && rule.name !== undefined ? [rule.name] : []))),
    others: rules.filter((rule) => !plain(rule) && (rule.name !== undefined || rule.suffix !== undefined)),
  };
}

/** The matcher of a plan. */
export function matcherOf(plan: CollectPlan): FileMatcher {
  const { always, others } = rulesOf(plan);
  // A name that ends as a rule says has the rule's own extension, so few rules are left to try.
  const byExtension = new Map<string, typeof others>();
  const near = (name: string) => {
    const extension = extensionOf(name);
    const known = byExtension.get(extension);
    if (known) return known;
    const mine = others.filter(({ suffix, name: whole }) => {
      const end = suffix ?? whole ?? '';
      return (suffix !== undefined && !end.includes('.')) || extensionOf(end) === extension;
    });
    if (byExtension.size < maxExtensions) byExtension.set(extension, mine);
    return mine;
  };
  return (name, parent) => {
    if (always.has(name)) return 'always';
    let found: 'needle' | null = null;
    for (const { name: whole, suffix, parent: start, needle } of near(name)) {
      if (suffix !== undefined && !name.endsWith(suffix)) continue;
      if (whole !== undefined && whole !== name) continue;
      if (start !== undefined && parent !== start && !parent.startsWith(`${start}-`)) continue;
      if (!needle) return 'always';
      found = 'needle';
    }
    return found;
  };
}
