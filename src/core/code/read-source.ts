import type { Span } from '../text/problem.js';
import type { Syntax } from '../syntax/grammars.js';
import type { CodeLanguage } from '../syntax/shape.js';
import type { SourceReading, PlainValue } from './source-reading.js';
import { SourceReader } from './source-reader.js';

/** Reads a source file by its syntax tree. Undefined when it is too long for that. */
export function readSource(language: CodeLanguage, text: string, syntax: Syntax): SourceReading | undefined {
  const views = language.views?.(text) ?? [text];
  const readings = views.flatMap(
    (view) => syntax.visit(language.grammar, view, (root) => new SourceReader(language).read(root)) ?? [],
  );
  return readings.length > 1 ? together(readings) : readings[0];
}

/** What several views of one file say, each thing once. */
function together(readings: readonly SourceReading[]): SourceReading {
  const once = <Item extends Span & { name?: string }>(items: readonly Item[]): Item[] => {
    const byPlace = new Map(items.map((item) => [`${item.start} ${item.end} ${item.name ?? ''}`, item]));
    return [...byPlace.values()].sort((a, b) => a.start - b.start || b.end - a.end);
  };
  const joint = (part: 'constants' | 'results'): Map<string, PlainValue[]> => {
    const found = new Map<string, PlainValue[]>();
    for (const reading of readings)
      for (const [name, values] of reading[part])
        found.set(name, once([...(found.get(name) ?? []), ...values]));
    return found;
  };
  return {
    strings: once(readings.flatMap(({ strings }) => strings)),
    calls: once(readings.flatMap(({ calls }) => calls)),
    methods: once(readings.flatMap(({ methods }) => methods)),
    types: once(readings.flatMap(({ types }) => types)),
    choices: once(readings.flatMap(({ choices }) => choices)),
    stretches: readings.flatMap(({ stretches }) => stretches),
    holders: once(readings.flatMap(({ holders }) => holders)),
    constants: joint('constants'),
    results: joint('results'),
    variables: new Map(readings.flatMap(({ variables }) => [...variables])),
  };
}
