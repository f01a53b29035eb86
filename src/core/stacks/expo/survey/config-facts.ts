import { plainConfig } from '../../../formats/app-config/plain.js';
import { typeName } from '../../../formats/plist/plain.js';
import { openParts, configValueAt, type ConfigValue } from '../../../formats/app-config/resolve.js';
import { packageFor, requirementsOf } from '../../../network/for-stack.js';
import type { Profile } from '../../../network/model.js';
import type { Platform } from '../../../words/words.js';
import type { ChainStep, Place } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition, Unresolved } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { unitFacts, type PlacedUnit } from '../../common/documents.js';
import type { ExpoBuild } from './builds.js';

const identifierWays = { android: ['android', 'package'], ios: ['ios', 'bundleIdentifier'] } as const;

/** The identifier that a build gets; undefined where the configuration has none. */
export function identifierIn(build: ExpoBuild, platform: Platform): ConfigValue | undefined {
  return configValueAt(build.config, identifierWays[platform]);
}

/** The names under which a network's plugin takes the app ID of each platform. */
export function pluginFields(profile: Profile): Partial<Record<Platform, string>> | undefined {
  return requirementsOf(profile, 'expo')?.pluginOptions;
}

/** A plugin entry of a configuration: its name and options. */
export function pluginEntry(
  config: ConfigValue | undefined,
  name: string,
): { entry: ConfigValue; options: ConfigValue | undefined } | undefined {
  const plugins = configValueAt(config, ['plugins']);
  for (const entry of plugins?.is === 'list' ? plugins.items : []) {
    const head = entry.is === 'list' ? entry.items[0] : entry;
    if (head?.is === 'text' && head.value === name)
      return { entry, options: entry.is === 'list' ? entry.items[1] : undefined };
  }
  return undefined;
}

/** What the configuration gives each build of an edition: its identifier, app IDs, keys and attribution IDs. */
export function configFacts(
  tree: Tree,
  builds: readonly ExpoBuild[],
  { platform, module }: Pick<SurveyEdition, 'platform' | 'module'>,
  context: SurveyContext,
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const { profiles } = context;
  const found = builds.map((build) => {
    const facts = new BuildFacts(tree, build, { platform, module });
    facts.tell(identifierIn(build, platform), { kind: 'identifier', network: null }, 'the identifier');
    facts.tell(
      configValueAt(build.config, ['name']),
      { kind: 'app-label', network: null },
      'the label of the app',
    );
    for (const profile of profiles) facts.tellPlugin(profile);
    facts.tellUnits(context);
    if (platform === 'ios') facts.facts.push(...listFacts(build, { ...facts.placing, module, profiles }));
    return facts;
  });
  return {
    facts: found.flatMap(({ facts }) => facts),
    unresolved: found.flatMap(({ unresolved }) => unresolved),
  };
}

/** What the configuration of one build says. */
class BuildFacts {
  readonly facts: Fact[] = [];
  readonly unresolved: Unresolved[] = [];
  private readonly common: Pick<Fact, 'platform' | 'module' | 'variants'>;

  constructor(
    private readonly tree: Tree,
    private readonly build: ExpoBuild,
    edition: Pick<SurveyEdition, 'platform' | 'module'>,
  ) {
    this.common = { ...edition, variants: [build.variant.name] };
  }

  /** Where values stand, and the way to them, for facts that are made elsewhere. */
  get placing() {
    return {
      variants: this.common.variants,
      at: (value: ConfigValue) => this.at(value),
      chainOf: (value: ConfigValue, text: string) => this.chainOf(value, text),
    };
  }

  /** A value as a fact; one that cannot be computed is unresolved. */
  tell(
    value: ConfigValue | undefined,
    base: { network: string | null; name?: string } & (
      { kind: 'identifier' | 'app-label' } | { kind: 'app-id'; carrier: 'plugin-entry' }
    ),
    what: string,
  ): void {
    if (!value || (value.is === 'plain' && value.value === null)) return;
    const common = { ...this.common, place: this.at(value) };
    if (value.is === 'open') {
      const { kind, network } = base;
      const chain = this.chainOf(value, what);
      this.unresolved.push({ kind, network, what, reason: value.reason, ...common, chain });
    } else if (value.is === 'text' || value.is === 'plain') {
      const text = String(value.value);
      this.facts.push({ ...base, value: text, effective: true, ...common, chain: this.chainOf(value, text) });
    }
  }

  /** The entry of a network's plugin, and the app ID in it. */
  tellPlugin(profile: Profile): void {
    const fields = pluginFields(profile);
    const name = packageFor(profile, 'expo')?.package;
    if (!fields || name === undefined) return;
    const found = pluginEntry(this.build.config, name);
    const base = { network: profile.id, ...this.common };
    if (!found) {
      const plugins = configValueAt(this.build.config, ['plugins']);
      for (const open of plugins ? openParts(plugins) : [])
        this.unresolved.push({
          kind: 'plugin-entry',
          what: `the plugin entry of ${name}`,
          reason: open.reason,
          ...base,
          place: this.at(open),
          chain: this.chainOf(open, 'plugins'),
        });
      return;
    }
    const given = Object.values(fields).filter(
      (field) => configValueAt(found.options, [field]) !== undefined,
    );
    this.facts.push({
      kind: 'plugin-entry',
      ...base,
      name,
      value: given.join(', ') || 'no IDs',
      effective: true,
      place: this.at(found.entry),
      chain: this.chainOf(found.entry, name),
    });
    const field = fields[this.common.platform];
    if (field === undefined) return;
    const fact = { kind: 'app-id', network: profile.id, name: field, carrier: 'plugin-entry' } as const;
    this.tell(configValueAt(found.options, [field]), fact, `the app ID (${field})`);
  }

  /** The unit IDs in what the configuration hands to the code. */
  tellUnits(context: SurveyContext): void {
    const units = this.unitsIn(configValueAt(this.build.config, ['extra']), 'extra', context);
    const { facts, unresolved } = unitFacts(units, this.common, context);
    this.facts.push(...facts);
    this.unresolved.push(...unresolved);
  }

  private unitsIn(value: ConfigValue | undefined, name: string, context: SurveyContext): PlacedUnit[] {
    if (value?.is === 'list') return value.items.flatMap((item) => this.unitsIn(item, name, context));
    if (value?.is === 'object')
      return [...value.entries].flatMap(([key, item]) => this.unitsIn(item, `${name}.${key}`, context));
    if (value?.is !== 'text') return [];
    return context.recogniser
      .recognise(value.value)
      .filter(({ kind }) => kind === 'unit')
      .map(({ network }) => ({
        network,
        name,
        value: value.value,
        place: this.at(value),
        chain: this.chainOf(value, value.value),
      }));
  }

  private at(value: ConfigValue): Place {
    return placeAt(value.path, this.tree.text(value.path), value);
  }

  private chainOf(value: ConfigValue, text: string): ChainStep[] {
    const step = { what: baseOf(value.path), value: text, place: this.at(value) };
    return value.variable === undefined ? [step] : [step, { what: value.variable, value: text, place: null }];
  }
}

/** The keys of the property list that networks require, and the attribution list in it. */
function listFacts(
  { config }: ExpoBuild,
  {
    module,
    variants,
    at,
    chainOf,
    profiles,
  }: {
    module: string;
    variants: string[];
    at: (value: ConfigValue) => Place;
    chainOf: (value: ConfigValue, text: string) => ChainStep[];
    profiles: readonly Profile[];
  },
): Fact[] {
  const list = configValueAt(config, ['ios', 'infoPlist']);
  const base = { platform: 'ios' as const, module, variants, effective: true as const };
  const asked = new Set(profiles.flatMap(({ ios }) => ios?.keys.map(({ key }) => key) ?? []));
  const facts: Fact[] = [];
  for (const [key, value] of list?.is === 'object' ? list.entries : []) {
    if (!asked.has(key) || value.is === 'open') continue;
    const text = value.is === 'text' || value.is === 'plain' ? String(value.value) : value.is;
    const content = plainConfig(value);
    const type = content === undefined ? value.is : typeName(content);
    const whole = typeof content === 'object' ? { content } : {};
    const more = { name: key, type, ...whole, place: at(value), chain: chainOf(value, text) };
    facts.push({ kind: 'plist-key', network: null, value: text, list: 'info', ...base, ...more });
  }
  const items = configValueAt(list, ['SKAdNetworkItems']);
  for (const item of items?.is === 'list' ? items.items : []) {
    const id = configValueAt(item, ['SKAdNetworkIdentifier']);
    if (id?.is !== 'text') continue;
    const network =
      profiles.find(({ ios }) => ios?.attribution?.ids.includes(id.value.toLowerCase()))?.id ?? null;
    const more = { name: 'SKAdNetworkItems', place: at(id), chain: chainOf(id, id.value) };
    facts.push({ kind: 'attribution-id', network, value: id.value, ...base, ...more });
  }
  return facts;
}
