import * as z from 'zod';
import { factDetail, factSubject, labelOf } from './show.js';
import type { ChainStep, CodePlace, Place } from './evidence.js';
import type { Survey } from './model.js';

/** A fact, or a value that cannot be determined, with its evidence in sentences. */
export const Explanation = z.object({
  says: z.string(),
  because: z
    .array(z.string())
    .meta({ description: 'A sentence per link of the evidence, in the order in which a reader follows it.' }),
});
export type Explanation = z.infer<typeof Explanation>;

/**
 * Explains every fact that all words of a question fit: its kind, network, name, value, placement, variants,
 * or `path:line`. What cannot be determined is explained alike.
 */
export function explain(survey: Survey, question: string): Explanation[] {
  const words = question.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = (texts: readonly (string | null | undefined)[]) => {
    const all = texts.flatMap((text) => (text == null ? [] : [text.toLowerCase()]));
    return words.every((word) => all.some((text) => text.includes(word)));
  };
  const facts = survey.facts
    .filter((fact) =>
      fits([
        fact.kind,
        labelOf(fact.kind),
        fact.network,
        fact.name,
        fact.value,
        fact.placement,
        fact.platform,
        ...fact.variants,
        at(fact.place),
      ]),
    )
    .map((fact): Explanation => {
      const { kind, value, network, variants, code, chain } = fact;
      const what = [labelOf(kind), factSubject(fact)].filter(Boolean).join(' ');
      const whose = network === null ? '' : ` of ${network}`;
      const detail = factDetail(fact);
      return {
        says: `In ${listed(variants)}, the ${what}${whose} is ${quoted(value)}${detail === undefined ? '' : ` (${detail})`}.`,
        because: [...chain.map(sentence), ...inCode(code)],
      };
    });
  const open = survey.unresolved
    .filter((item) =>
      fits([
        item.kind,
        labelOf(item.kind),
        item.network,
        item.what,
        item.platform,
        ...item.variants,
        at(item.place),
      ]),
    )
    .map(({ what, reason, variants, chain }): Explanation => ({
      says: `In ${listed(variants)}, ${what} cannot be determined: ${reason}.`,
      because: chain.map(sentence),
    }));
  return [...facts, ...open];
}

function inCode(code: Survey['facts'][number]['code']): string[] {
  if (!code) return [];
  const inside = [code.type, ...code.methods].filter(Boolean).join('.');
  return [
    ...(inside ? [`It is in ${inside}.`] : []),
    ...(code.flow === undefined ? [] : [`It is ${flowText(code.flow)}.`]),
    ...(code.argument === undefined
      ? []
      : [
          `The call gets ${code.argument.written}${code.argument.ids.length > 0 ? `, which is ${listed(code.argument.ids)}` : ''}.`,
        ]),
    ...code.conditions.map(
      ({ text, holds }) => `It runs only when “${text}” ${holds ? 'holds' : 'does not hold'}.`,
    ),
  ];
}

function flowText(flow: NonNullable<CodePlace['flow']>): string {
  if (flow.into === 'constant') return `assigned to ${flow.name}`;
  return `passed to ${flow.of} as argument ${typeof flow.at === 'number' ? flow.at + 1 : flow.at}`;
}

function sentence({ what, value, place }: ChainStep): string {
  const where = place ? ` at ${at(place)}` : '';
  const source = what === 'Gradle' ? 'Gradle script' : what;
  if (value === null) return `The ${source}${where} gives no value.`;
  return `The ${source}${where} says ${quoted(value)}.`;
}

function at({ path, line, column }: Place): string {
  return `${path}:${line}:${column}`;
}

function quoted(value: string): string {
  return value === '' ? 'empty' : `“${value}”`;
}

function listed(names: readonly string[]): string {
  if (names.length <= 1) return names[0] ?? 'no variant';
  return `${names.slice(0, -1).join(', ')} and ${names.at(-1)}`;
}
