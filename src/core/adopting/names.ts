import { wordsOf } from '../roster/carrier-names.js';
import { formatNames } from '../words/names.js';
import type { FactOf } from '../facts/model.js';

/** What carries the ID of a fact, the most telling first: a constant or resource, then the class around it. */
export function carriersOf({ code, name, carrier }: FactOf<'unit-id'>): { text: string; what: string }[] {
  if (carrier === 'placebook') return name === undefined ? [] : [{ text: name, what: 'the placebook' }];
  const constant = code?.flow?.into === 'constant' ? code.flow.name : undefined;
  const own = constant ?? (carrier === 'code' || carrier === 'storyboard' ? undefined : name);
  return [
    ...(own === undefined
      ? []
      : [
          {
            text: own.split('.').at(-1) ?? own,
            what: constant === undefined ? `its name ${own}` : `the constant ${own}`,
          },
        ]),
    ...(code?.type ? [{ text: code.type, what: `the class ${code.type}` }] : []),
  ];
}

/** The format that a name tells, when it tells one. */
export function formatIn(text: string): (typeof formatNames)[number] | undefined {
  const words = wordsOf(text);
  return formatNames.find(
    (format) => words.includes(format) || (format === 'rewarded' && words.includes('reward')),
  );
}
