import { ruleNamed, rules } from './checks/rules/index.js';
import { runChecks } from './checks/run.js';
import type { Fact, FactKind, Survey } from './facts/model.js';
import type { Profile } from './network/model.js';
import { recogniser } from './network/recognise.js';
import type { Title } from './roster/model.js';
import { platforms, type Format, type Platform } from './words/words.js';

/** Something that a profile asks for and that a tree lacks, or has otherwise. */
export interface Unmet {
  platform: Platform | null;
  /** The rule that found it. */
  rule: string;
  what: string;
  /** How a person mends it, or what wiring would do. */
  fix: string;
  place: Fact['place'] | null;
}

/** Rules about what an SDK needs of a build and of its code, whatever a title has on record. */
const areas =
  /^(build|manifest|plist|attribution|companion|privacy)\/|^code\/(never-started|consent-not-asked)$|^app-id\/missing$/;

/** Facts that belong to no network, and that a profile may ask for all the same. */
const shared: ReadonlySet<FactKind> = new Set([
  'permission',
  'plist-key',
  'meta-data',
  'java-level',
  'desugaring',
  'shrinking',
]);

/** Whether a fact is what a profile asks for, though it belongs to no network. */
export function isAskedFor({ android, ios }: Profile, { kind, network }: Fact): boolean {
  if (network !== null) return false;
  if (kind === 'min-sdk' || kind === 'compile-sdk') return android?.[kind] !== undefined;
  if (kind === 'deployment-target') return ios?.[kind] !== undefined;
  return shared.has(kind);
}

/** Everything that a profile asks for and that a tree lacks: what checks would say of a title that uses all of it. */
export function unmetNeeds(profile: Profile, survey: Survey): Unmet[] {
  const profiles = [profile];
  const { findings } = runChecks(
    {
      survey,
      profiles,
      recogniser: recogniser(profiles),
      title: probe(profile, survey),
      titleId: null,
      inventories: [],
      now: '',
    },
    rules.filter(({ meta }) => areas.test(meta.id)),
  );
  return findings
    .filter(({ network }) => network === profile.id || network === null)
    .map(({ platform, rule, message, mend, place }) => ({
      platform,
      rule,
      what: message,
      fix: ruleNamed(rule)?.meta.byWiring ?? mend,
      place,
    }));
}

/** A title that is what the tree builds, and uses the network in every format that it offers. */
function probe(profile: Profile, { editions }: Survey): Title {
  const built = platforms.flatMap((platform) => editions.find((one) => one.platform === platform) ?? []);
  const formats = Object.keys(profile.formats) as Format[];
  return {
    name: profile.name,
    audience: 'general',
    stages: { test: [], production: built.flatMap(({ variants }) => variants.map(({ name }) => name)) },
    editions: Object.fromEntries(
      built.map(({ platform, identifier }) => [platform, { identifier: identifier ?? 'unknown' }]),
    ),
    networks: { [profile.id]: {} },
    placements: Object.fromEntries(
      formats.map((format) => [format, { format, settings: {}, units: { [profile.id]: {} } }]),
    ),
  };
}
