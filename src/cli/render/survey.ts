import { counted } from '../../core/text/counted.js';
import { printableValue } from '../../core/text/printable.js';
import type { Fact, Survey } from '../../core/facts/model.js';
import { byKind, factDetail, factSubject, labelOf } from '../../core/facts/show.js';
import type { Paint } from '../io.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { chainLines, placeText } from './places.js';

/** A survey for people: by edition, then by network, each fact with its place and evidence. */
export function surveyText(survey: Survey, paint: Paint): string {
  const { tree, title, stacks, passedOver, editions, facts, unresolved, problems } = printableValue(survey);
  const lines = [`${paint.bold(tree)}${title ? `, compared with the title ${paint.bold(title)}` : ''}`];
  if (stacks.length === 0)
    lines.push(
      '',
      'Nothing here is recognised: no Gradle module that builds an application, no Xcode project with one, no Flutter project.',
    );
  for (const { stack, root, evidence } of stacks)
    lines.push(`  ${stack} in ${root || '.'}: ${evidence.join('; ')}`);
  for (const { root, why } of passedOver) lines.push(`  ${root || '.'} was skipped: ${why}`);
  for (const { platform, module, identifier, variants } of editions) {
    lines.push(
      '',
      `${paint.bold(platformLabels[platform])}  ${identifier ?? 'identifier unknown'}  ${paint.dim(`(${module})`)}`,
    );
    lines.push(
      `  variants: ${variants.map(({ name, stage }) => `${name} (${stage ?? 'no stage'})`).join(', ')}`,
    );
    const mine = facts.filter((fact) => fact.platform === platform && fact.module === module);
    for (const network of [null, ...new Set(mine.flatMap((fact) => fact.network ?? []))]) {
      const group = mine.filter((fact) => fact.network === network).sort(byKind);
      if (group.length === 0) continue;
      lines.push('', `  ${paint.cyan(network ?? 'build')}`);
      for (const fact of group) lines.push(...factLines(fact, variants.length, paint));
    }
    const open = unresolved.filter((item) => item.platform === platform && item.module === module);
    if (open.length > 0) lines.push('', `  ${paint.yellow('cannot tell')}`);
    for (const { what, reason, variants: names, place, chain } of open) {
      lines.push(
        `    ${what} (${names.join(', ')}): ${reason}  ${paint.dim(placeText(place))}`,
        ...chainLines(chain, paint, '      '),
      );
    }
  }
  if (problems.length > 0) lines.push('', paint.red('could not be read'));
  for (const { path, line, column, message } of problems)
    lines.push(`  ${path}:${line}:${column}  ${message}`);
  const held = facts.filter(({ kind }) => kind === 'app-id' || kind === 'unit-id').length;
  lines.push(
    '',
    `${counted(facts.length, 'fact')}, ${held} of them IDs; ${unresolved.length} that cannot be determined; ${counted(problems.length, 'problem')} in files.`,
    '',
  );
  return lines.join('\n');
}

/** A long text is cut where a line would break anyway; `--json` has it whole. */
function cut(value: string): string {
  return value.length > 60 ? `${value.slice(0, 59)}…` : value;
}

function factLines(fact: Fact, variantCount: number, paint: Paint): string[] {
  const variants = fact.variants.length === variantCount ? 'all variants' : fact.variants.join(', ');
  const named = [labelOf(fact.kind), factSubject(fact)].filter(Boolean).join(' ');
  const value =
    fact.value === fact.name
      ? ''
      : fact.value.trim() === fact.value
        ? cut(fact.value)
        : JSON.stringify(fact.value);
  const detail = factDetail(fact);
  const where = detail === undefined ? '' : paint.dim(`, ${detail}`);
  const [, ...rest] = fact.chain;
  return [
    `    ${named}${value ? ` ${paint.bold(value)}` : ''}  ${paint.dim(variants)}${where}  ${placeText(fact.place)}`,
    ...chainLines(rest, paint, '      '),
  ];
}
