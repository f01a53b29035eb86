import { platformLabels } from '../words/platform-labels.js';
import { carryingOf, type Carrying } from '../facts/carried.js';
import { isWhereBuildLooks } from '../facts/effective.js';
import { valueAt } from '../text/own-values.js';
import type { Profile } from '../network/model.js';
import { type Format, type Platform, type Stage, platforms, stages } from '../words/words.js';
import { offers } from '../network/recognise.js';
import { expectedIds, isEnrolled, type ExpectedId } from '../roster/expected.js';
import type { Title } from '../roster/model.js';
import { heldIds } from '../roster/validate.js';
import { staged } from '../roster/variant-stages.js';
import type { InventoryReading } from '../inventory/model.js';
import type { LastRehearsal } from '../rehearsal/report.js';
import { rehearsedIn, type LastRehearsals } from './rehearsed.js';
import { partnerSays } from './partner-state.js';
import type { Reading, Board, BoardCell, BoardRow, BoardEdition, RecordState, BuildState } from './model.js';

/** What a board is made from besides the record. */
export interface BoardSources {
  /** What was last read of the title's trees. */
  readings: readonly Reading[];
  /** What was last read of the networks' lists. */
  inventories: readonly InventoryReading[];
  /** What was rehearsed last of each edition. */
  rehearsals?: LastRehearsals;
  /** The time, in ISO 8601. */
  now: string;
}

/** Lays a title's record and the last readings of its trees side by side. */
export function makeBoard(
  id: string,
  title: Title,
  profiles: readonly Profile[],
  sources: BoardSources,
): Board {
  const used = profiles.filter((profile) =>
    platforms.some((platform) => isEnrolled(title, profile.id, platform)),
  );
  const cellsFor = cellMaker(title, profiles, sources);
  const rowFor = (profile: Profile, placement: string | null) => ({
    placement,
    network: profile.id,
    networkName: profile.name,
    cells: cellsFor(profile, placement),
  });
  const apps = used
    .filter((profile) => profile.ids.app)
    .map((profile): BoardRow => ({
      ...rowFor(profile, null),
      format: null,
      label: profile.ids.app?.label ?? 'app ID',
    }));
  const placements = Object.entries(title.placements).flatMap(([name, { format, units }]) =>
    used
      .filter((profile) => valueAt(units, profile.id))
      .map((profile): BoardRow => ({
        ...rowFor(profile, name),
        format,
        label: profile.ids.unit?.label ?? 'unit ID',
      })),
  );
  const rows = [...apps, ...placements];
  const editions = platforms.flatMap((platform) => editionAt(title, platform, sources.readings) ?? []);
  const good =
    rows.flatMap(({ cells }) => cells).every(isGood) &&
    editions.every(({ summary }) => summary !== null && summary.blocker === 0);
  return { title: id, name: title.name, editions, rows, good };
}

/** What makes the cells of a row: one for each platform of the title and each stage. */
function cellMaker(
  title: Title,
  profiles: readonly Profile[],
  { readings, inventories, rehearsals = {}, now }: BoardSources,
): (profile: Profile, placement: string | null) => BoardCell[] {
  const clashing = clashingIds(title);
  const built = platforms.filter((platform) => title.editions[platform]);
  const sides = built.map((platform): SideInput => {
    const reading = readings.find((candidate) => candidate.platform === platform);
    return {
      platform,
      expected: indexed(expectedIds(title, profiles, platform)),
      reading,
      rehearsal: rehearsals[platform],
      carrying: carryingOf(reading?.facts ?? []),
    };
  });
  return (profile, placement) => {
    const inventory = inventories.find(({ network }) => network === profile.id);
    const format = placement === null ? undefined : valueAt(title.placements, placement)?.format;
    const row = { title, profile, placement, format, clashing, inventory, now };
    return sides.flatMap((side) => stages.map((stage) => cellOf(row, side, stage)));
  };
}

function editionAt(title: Title, platform: Platform, readings: readonly Reading[]): BoardEdition | undefined {
  const identifier = title.editions[platform]?.identifier;
  if (identifier === undefined) return undefined;
  const reading = readings.find((candidate) => candidate.platform === platform);
  return {
    platform,
    identifier,
    found: reading?.edition.identifier ?? null,
    tree: reading?.tree ?? null,
    snapshot: reading?.snapshot ?? null,
    before: reading?.before ?? null,
    readAt: reading?.readAt ?? null,
    summary: reading?.summary ?? null,
  };
}

function isGood({ record, build }: BoardCell): boolean {
  return (
    record !== 'missing' &&
    record !== 'clash' &&
    record !== 'unknown-to-partner' &&
    (build === 'agrees' || build === 'nothing-expected')
  );
}

/** What is expected on one platform, by network, placement and stage. */
type ExpectedIds = ReadonlyMap<string, ExpectedId>;

function slotKey(network: string, placement: string | null, stage: Stage): string {
  return `${network} ${placement ?? ''} ${stage}`;
}

function indexed(all: readonly ExpectedId[]): ExpectedIds {
  return new Map(all.map((item) => [slotKey(item.network, item.placement ?? null, item.stage), item]));
}

/** What the cells of a row have in common. */
interface RowInput {
  title: Title;
  profile: Profile;
  placement: string | null;
  format: Format | undefined;
  clashing: ReadonlySet<string>;
  inventory: InventoryReading | undefined;
  now: string;
}

/** What the cells of a platform have in common. */
interface SideInput {
  platform: Platform;
  expected: ExpectedIds;
  reading: Reading | undefined;
  rehearsal: LastRehearsal | undefined;
  carrying: Carrying;
}

function cellOf(row: RowInput, side: SideInput, stage: Stage): BoardCell {
  const { profile, placement, format, clashing } = row;
  const { platform, expected } = side;
  const none = (record: 'not-offered' | 'not-used', why: string): BoardCell => ({
    platform,
    stage,
    record,
    build: 'nothing-expected',
    found: [],
    id: null,
    why,
    left: null,
    rehearsed: null,
  });
  if (format ? !offers(profile, format, platform) : !profile[platform]?.['app-id'])
    return none(
      'not-offered',
      `${profile.name} has no ${format ?? 'app ID'} on ${platformLabels[platform]}.`,
    );
  const mine = expected.get(slotKey(profile.id, placement, stage));
  if (!mine) return none('not-used', `${profile.name} is not wired into this edition.`);
  const said = partnerSays(mine, row.inventory, row.now);
  const record: RecordState =
    mine.id === undefined
      ? 'missing'
      : clashing.has(`${profile.id} ${mine.id}`)
        ? 'clash'
        : mine.from === 'sample'
          ? 'sample'
          : (said.record ?? 'set');
  const { build, found } = buildState(mine, row.title, side);
  return {
    platform,
    stage,
    record,
    build,
    found,
    id: mine.id ?? null,
    why: [inWords(mine, record, build, found), said.why].filter(Boolean).join(' '),
    left: record === 'too-new' ? said.left : null,
    rehearsed: rehearsedIn(side.rehearsal, { network: profile.id, placement, stage }, side.reading),
  };
}

function buildState(
  mine: ExpectedId,
  title: Title,
  { reading, carrying, platform, expected }: SideInput,
): { build: BuildState; found: string[] } {
  if (!reading) return { build: 'unread', found: [] };
  const variants = reading.edition.variants
    .map((variant) => staged(variant, title))
    .filter(({ stage }) => stage === mine.stage)
    .map(({ name }) => name);
  const reaches = (names: readonly string[]) => names.some((name) => variants.includes(name));
  const kind = mine.kind === 'app' ? 'app-id' : 'unit-id';
  const facts = reading.facts.flatMap((fact) => {
    if (fact.kind !== kind || fact.network !== mine.network || fact.platform !== platform) return [];
    const carried = isWhereBuildLooks(fact) ? (fact.kind === 'unit-id' ? carrying(fact) : fact.variants) : [];
    return reaches(carried) ? [{ ...fact, variants: [...carried] }] : [];
  });
  const right = facts.filter(({ value }) => value === mine.id);
  const covered = variants.every((name) => right.some((fact) => fact.variants.includes(name)));
  const others = facts.filter((fact) => !right.includes(fact));
  // A unit ID of another placement does not conflict with this one; only the other stage's ID of the same spot does.
  const otherStage = stages
    .filter((stage) => stage !== mine.stage)
    .map((stage) => expected.get(slotKey(mine.network, mine.placement ?? null, stage)))[0];
  const rivals =
    mine.kind === 'app'
      ? others
      : others.filter(
          (fact) =>
            (fact.placement !== undefined && fact.placement === mine.placement) ||
            fact.value === otherStage?.id,
        );
  const found = [...new Set(rivals.map(({ value }) => value))];
  if (found.length > 0) return { build: 'differs', found };
  if (mine.id !== undefined && covered && variants.length > 0) return { build: 'agrees', found };
  const open = reading.unresolved.some(
    (item) => item.kind === kind && item.network === mine.network && reaches(item.variants),
  );
  return { build: open ? 'cannot-tell' : 'absent', found };
}

const recordWords: Record<Exclude<RecordState, 'sample' | 'missing'>, string> = {
  set: 'The roster has it',
  'not-offered': 'Not offered',
  'not-used': 'Not used',
  clash: 'The roster has the same ID in two places',
  'unknown-to-partner': 'The roster has it, but the network does not know it',
  'too-new': 'The roster has it, but it does not serve ads yet',
};

const buildWords: Record<Exclude<BuildState, 'differs'>, string> = {
  agrees: 'every variant of this stage contains it',
  absent: 'the build does not contain it',
  'cannot-tell': 'reading cannot tell what the build contains',
  unread: 'no tree read yet',
  'nothing-expected': 'nothing is expected',
};

function inWords(
  { stage, from }: ExpectedId,
  record: RecordState,
  build: BuildState,
  found: readonly string[],
): string {
  const inRecord =
    record === 'missing'
      ? `The roster has no ${stage} ID`
      : record === 'sample'
        ? from === 'sample'
          ? 'The network’s sample is used'
          : recordWords.set
        : recordWords[record];
  const inBuild = build === 'differs' ? `the build contains ${found.join(', ')}` : buildWords[build];
  return `${inRecord}; ${inBuild}.`;
}

function clashingIds(title: Title): Set<string> {
  const seen = new Set<string>();
  const clashing = new Set<string>();
  for (const { network, id, stage } of heldIds(title)) {
    if (stage === 'test') continue;
    const key = `${network} ${id}`;
    if (seen.has(key)) clashing.add(key);
    seen.add(key);
  }
  return clashing;
}
