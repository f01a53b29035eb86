import type { Survey } from '../facts/model.js';
import { isWithin } from '../text/paths.js';
import type { Platform } from '../words/words.js';
import type { Report } from './model.js';

type Problem = Survey['problems'][number];

const buildReads = /\.(xml|plist|pbxproj|toml)$/;

/** Whether a problem breaks a file: build tools stop at it, and its content is unknown. */
export function breaksFile({ path, kind }: Problem): boolean {
  return kind === 'conflict' || (buildReads.test(path) && kind !== 'not-read');
}

/** The first problem of each file, and how many more it has. */
export function byFile(problems: readonly Problem[]): { first: Problem; more: number }[] {
  const files = new Map<string, { first: Problem; more: number }>();
  for (const problem of problems) {
    const known = files.get(problem.path);
    if (known) known.more++;
    else files.set(problem.path, { first: problem, more: 0 });
  }
  return [...files.values()];
}

const onlyAndroid = /\.(xml|toml|gradle|kts|kt|java|properties)$/;
const onlyIos = /\.(plist|pbxproj|xcconfig|swift|mm?|xcprivacy|storyboard|xib)$|(^|\/)Podfile$/;

/**
 * Whether what is missing in an edition may be in a broken file: one of its platform, below the same project. What is
 * absent from a file that cannot be read is not reported; the broken file is.
 */
export function mayBeInBrokenFile(
  { problems, stacks }: Survey,
  { platform, path }: { platform: Platform | null; path: string | undefined },
): boolean {
  const roots = stacks.map(({ root }) => root).sort((a, b) => b.length - a.length);
  const rootOf = (file: string) => roots.find((root) => isWithin(file, root));
  return problems.some((problem) => {
    if (!breaksFile(problem)) return false;
    if (platform === 'android' && onlyIos.test(problem.path)) return false;
    if (platform === 'ios' && onlyAndroid.test(problem.path)) return false;
    return path === undefined || rootOf(problem.path) === rootOf(path);
  });
}

/** Whether what is missing in variants may be in a script that cannot be read: each of them takes one over. */
export function mayBeInUnreadScript(
  { unresolved }: Survey,
  { platform, module, variants = [] }: Pick<Report, 'platform' | 'module' | 'variants'>,
): boolean {
  const open = unresolved.filter(
    (one) =>
      one.cause === 'unread-script' && one.platform === platform && (module == null || one.module === module),
  );
  return open.length > 0 && variants.every((name) => open.some((one) => one.variants.includes(name)));
}
