import type { Profile } from '../network/model.js';
import type { Format, Platform, Stage } from '../words/words.js';
import { recogniser } from '../network/recognise.js';
import type { Fact, FactOf, Survey, Variant } from '../facts/model.js';
import { placementName, wordsOf } from '../roster/carrier-names.js';
import { carriersOf, formatIn } from './names.js';
import type { Confidence } from './model.js';

/** A unit ID that trees carry, and all that they say of it. */
export interface FoundUnit {
  network: string;
  platform: Platform;
  id: string;
  stage: Stage | null;
  name: string | null;
  nameFrom: string;
  format: Format | null;
  formatFrom: string;
  confidence: Confidence;
  fact: Fact;
}

/** The unit IDs of surveys, each once per platform and name, the samples of networks left out. */
export function foundUnits(
  surveys: readonly Survey[],
  profiles: readonly Profile[],
  stageOf: (platform: Platform, module: string, variant: string) => Stage | null,
): FoundUnit[] {
  const { recognise } = recogniser(profiles);
  const found = new Map<string, FoundUnit>();
  for (const survey of surveys) {
    for (const fact of survey.facts) {
      if (fact.kind !== 'unit-id' || !fact.network) continue;
      const { network, platform, value: id } = fact;
      const reading = recognise(id, network).find((one) => one.network === network && one.kind === 'unit');
      if (!reading || (reading.sample ?? []).length > 0) continue;
      const key = `${network} ${platform} ${id}`;
      const profile = profiles.find((one) => one.id === network);
      const words = new Set([
        ...wordsOf(network),
        ...wordsOf(profile?.name ?? ''),
        ...wordsOf(profile?.ids.unit?.label ?? ''),
      ]);
      const carrier = carriersOf(fact)
        // A placebook has the names that the record gave it.
        .map(({ text, what }) => ({
          name: fact.carrier === 'placebook' ? text : placementName(text, words),
          what,
          text,
        }))
        .find(({ name }) => name !== null);
      const format = formatOf(survey, fact, carrier?.text);
      const stages = new Set(fact.variants.map((variant) => stageOf(platform, fact.module, variant)));
      const stage: Stage | null = stages.has('production')
        ? 'production'
        : stages.has('test')
          ? 'test'
          : null;
      const unit: FoundUnit = {
        network,
        platform,
        id,
        stage,
        name: carrier?.name ?? null,
        nameFrom: carrier?.what ?? 'nothing that names it',
        format: format?.format ?? null,
        formatFrom: format?.from ?? 'nothing that tells the format',
        confidence: format?.sure === true && carrier !== undefined ? 'likely' : 'guess',
        fact,
      };
      const known = found.get(key);
      if (
        !known ||
        (known.name === null && unit.name !== null) ||
        (known.format === null && unit.format !== null)
      )
        found.set(key, unit);
    }
  }
  return [...found.values()];
}

/** The format of a unit: of the call that is given it, else of what its name tells. */
function formatOf(
  { facts }: Survey,
  { value, network, module }: Fact,
  carrier: string | undefined,
): { format: Format; from: string; sure: boolean } | undefined {
  const written = facts.find(
    (fact): fact is FactOf<'placement-settings'> =>
      fact.kind === 'placement-settings' && fact.module === module && fact.name === carrier,
  );
  if (written?.format) return { format: written.format, from: 'the placebook', sure: true };
  const loads = facts.filter(
    (fact): fact is FactOf<'call'> =>
      fact.kind === 'call' &&
      fact.network === network &&
      fact.module === module &&
      (fact.action === 'load' || fact.action === 'identify') &&
      fact.code?.argument?.ids.includes(value) === true,
  );
  const formats = new Set(loads.map(({ format }) => format));
  const [only] = formats;
  if (only !== undefined && formats.size === 1)
    return {
      format: only,
      from: `the call of ${loads[0]?.value ?? ''} that is given it`,
      sure: true,
    };
  const format = carrier === undefined ? undefined : formatIn(carrier);
  return format && { format, from: `the word “${format}” in ${carrier}`, sure: false };
}

/** The stage that a variant's own names tell; null when they tell none. */
export function guessStage({
  name,
  type,
  flavours,
}: Pick<Variant, 'name' | 'type' | 'flavours'>): Stage | null {
  for (const text of [...flavours, type, name]) {
    const words = wordsOf(text);
    if (
      words.some((word) =>
        [
          'debug',
          'dev',
          'development',
          'test',
          'testing',
          'qa',
          'staging',
          'beta',
          'alpha',
          'internal',
          'adhoc',
        ].includes(word),
      )
    )
      return 'test';
  }
  for (const text of [type, name, ...flavours]) {
    const words = wordsOf(text);
    if (words.some((word) => ['release', 'prod', 'production', 'store', 'live'].includes(word)))
      return 'production';
  }
  return null;
}
