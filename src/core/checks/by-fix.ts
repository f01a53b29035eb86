import type { Finding } from './model.js';
import { groupBy } from '../text/group-by.js';
import { listed } from './scope.js';

/** Findings that one thing fixes: what to do, said once. */
export interface FixGroup {
  mend: string;
  /** Whether wiring has edits for all of them. */
  isWired: boolean;
  sentences: Sentence[];
}

/** Findings of one rule whose messages differ only in some words. */
export interface Sentence {
  rule: string;
  /** The message; `…` is where the findings differ. */
  text: string;
  findings: { finding: Finding; differs: string }[];
}

/** Findings by what fixes them, in the order of the first of each: those that wiring fixes come first. */
export function byFix(findings: readonly Finding[]): FixGroup[] {
  const groups = [...groupBy(findings, ({ fix, mend }) => JSON.stringify([fix !== undefined, mend]))];
  return groups
    .flatMap(([, mine]): FixGroup[] => {
      const [first] = mine;
      if (!first) return [];
      const sentences = [...groupBy(mine, ({ rule }) => rule)].flatMap(([rule, same]) =>
        sentencesOf(rule, same),
      );
      return [{ mend: first.mend, isWired: first.fix !== undefined, sentences }];
    })
    .sort((a, b) => Number(b.isWired) - Number(a.isWired));
}

function sentencesOf(rule: string, findings: readonly Finding[]): Sentence[] {
  const apart = findings.map((finding) => ({
    rule,
    text: finding.message,
    findings: [{ finding, differs: '' }],
  }));
  if (findings.length === 1) return apart;
  const words = findings.map(({ message }) => message.split(' '));
  const shortest = Math.min(...words.map(({ length }) => length));
  const isSame = (at: (list: string[]) => string | undefined) => new Set(words.map(at)).size === 1;
  let head = 0;
  while (head < shortest && isSame((list) => list[head])) head++;
  let tail = 0;
  while (tail < shortest - head && isSame((list) => list.at(-1 - tail))) tail++;
  // Messages with little in common are kept as they are.
  if (head + tail < shortest / 3) return apart;
  const [first = []] = words;
  const parts = words.map((list) => list.slice(head, list.length - tail).join(' '));
  const marks = [...new Set(parts.map((part) => /[.,:;]?$/.exec(part)?.[0] ?? ''))];
  // A mark that ends every part belongs to the sentence.
  const mark = marks.length === 1 ? (marks[0] ?? '') : '';
  const differing = parts.map((part) => part.slice(0, part.length - mark.length));
  const isWhole = differing.every((part) => part === '');
  const hole = isWhole ? [] : [`…${mark}`];
  const text = [...first.slice(0, head), ...hole, ...first.slice(first.length - tail)].join(' ');
  return [
    {
      rule,
      text,
      findings: findings.map((finding, at) => ({ finding, differs: saidOf(finding, differing[at] ?? '') })),
    },
  ];
}

/** What is particular to a finding; nothing where its platform or its variants, which are named anyway, say the same. */
function saidOf({ platform, variants }: Finding, differs: string): string {
  const named = [platform ?? '', listed(variants), variants.join(', ')].map((text) => text.toLowerCase());
  return named.includes(differs.toLowerCase()) ? '' : differs;
}
