import type { Fact } from '../facts/model.js';
import type { Profile } from '../network/model.js';
import { valueAt } from '../text/own-values.js';
import { formatNames } from '../words/names.js';
import type { Title } from './model.js';

const formats = new Set<string>(formatNames.flatMap((name) => name.split('-')));

/** Words that do not tell where an ad is shown. */
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

/** Words that say what kind of code something is. */
const kinds = new Set(
  'screen page activity controller fragment widget component scene manager helper holder wrapper ids names keys'.split(
    ' ',
  ),
);

/** The placement whose name is all of a name in code; undefined if none or several match. */
function placementSaid(
  carrier: string,
  placements: readonly string[],
  networkWords: ReadonlySet<string>,
): string | undefined {
  const telling = (name: string) => {
    const words = wordsOf(name).filter((word) => !empty.has(word) && !kinds.has(word));
    return new Set(words.filter((word) => !networkWords.has(word) && !formats.has(word)));
  };
  const said = telling(carrier);
  const [one, ...others] = placements.filter((placement) => {
    const wanted = telling(placement);
    return wanted.size > 0 && wanted.size === said.size && [...wanted].every((word) => said.has(word));
  });
  return others.length === 0 ? one : undefined;
}

/** A unit ID in code whose constant, or class, is named after another placement of the same format. */
export interface NamedOtherwise {
  /** The name in code. */
  name: string;
  /** The placement that the name says. */
  says: string;
}

/** Which placements of a network the classes of an edition's code name, by class. */
export function placementsByType(facts: readonly Fact[], network: string): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const { code, placement, network: of } of facts) {
    if (!code?.type || placement === undefined || of !== network) continue;
    found.set(code.type, (found.get(code.type) ?? new Set()).add(placement));
  }
  return found;
}

/**
 * Whether the code around a unit ID names another placement than the one that holds it.
 * @param byType what `placementsByType` found for the network
 */
export function namedOtherwise(
  fact: Fact,
  byType: ReadonlyMap<string, ReadonlySet<string>>,
  title: Title,
  { id, name: network }: Pick<Profile, 'id' | 'name'>,
): NamedOtherwise | undefined {
  if (fact.kind !== 'unit-id' || fact.carrier !== 'code' || fact.network !== id) return undefined;
  const own = fact.placement === undefined ? undefined : valueAt(title.placements, fact.placement);
  if (!own || fact.placement === undefined) return undefined;
  const alike = Object.entries(title.placements).flatMap(([name, { format, units }]) =>
    format === own.format && valueAt(units, id) ? [name] : [],
  );
  const words = new Set([...wordsOf(id), ...wordsOf(network)]);
  const { type, flow } = fact.code ?? {};
  const name = flow?.into === 'constant' ? (flow.name.split('.').at(-1) ?? flow.name) : type;
  const says = name ? placementSaid(name, alike, words) : undefined;
  if (!name || says === undefined || says === fact.placement) return undefined;
  // A class may hold the units of several placements: one that has its own as well mixes nothing up.
  const hasOwn = flow?.into !== 'constant' && byType.get(type ?? '')?.has(says);
  return hasOwn ? undefined : { name, says };
}
