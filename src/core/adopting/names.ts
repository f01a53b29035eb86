import { formatNames } from '../words/names.js';
import type { FactOf } from '../facts/model.js';

/** Words that say nothing of where an ad stands. */
const empty = new Set(
  'ad ads unit units id ids key my the a an android ios test testing sample debug release prod production staging value string const constant default config load show view placement slot zone tag'.split(
    ' ',
  ),
);

/** The words of a name in code or resources: `FOOTER_BANNER_UNIT_ID`, `footerBannerUnit`, `R.string.footer`. */
export function wordsOf(name: string): string[] {
  return name
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .replace(/([A-Z]+)([A-Z][a-z])/g, '$1 $2')
    .toLowerCase()
    .split(/[^a-z0-9]+/)
    .filter((word) => word !== '' && !/^\d+$/.test(word));
}

/** A placement's name from what carries its ID: words of the network and words that say nothing are left out. */
export function placementName(carrier: string, networkWords: ReadonlySet<string>): string | null {
  const words = wordsOf(carrier).filter((word) => !empty.has(word) && !networkWords.has(word));
  const slug = [...new Set(words)]
    .join('-')
    .replace(/^[^a-z]+/, '')
    .slice(0, 60);
  return slug === '' ? null : slug;
}

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
