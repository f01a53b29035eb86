import { platformLabels, withPlatformLabels } from '../words/platform-labels.js';
import type { FieldProblem } from '../formats/yaml/read.js';
import { type IdKindName, type Profile } from '../network/model.js';
import { platforms, stages, type Platform, type Stage } from '../words/words.js';
import { recogniser, type Recogniser } from '../network/recognise.js';
import { titleCredentialProblems } from './credentials.js';
import type { Title } from './model.js';
import { settingProblems } from './settings.js';

/** An ID of a title with the field in which it is. */
export interface HeldId {
  field: string;
  network: string;
  kind: IdKindName;
  platform: Platform;
  stage: Stage;
  placement?: string;
  id: string;
}

/** An ID, and the title that holds it. */
export type OwnedId = HeldId & { title: string };

/** Finds who holds an ID outside the title that is checked. */
export type FindHolder = (network: string, id: string) => OwnedId | undefined;

/** Every ID in a title, in the order of the document. */
export function heldIds(title: Pick<Title, 'networks' | 'placements'>): HeldId[] {
  const held: HeldId[] = [];
  for (const [network, enrolment] of Object.entries(title.networks)) {
    for (const platform of platforms) {
      for (const stage of stages) {
        const id = enrolment[platform]?.[stage]?.app;
        if (id === undefined) continue;
        held.push({
          field: `networks.${network}.${platform}.${stage}.app`,
          network,
          kind: 'app',
          platform,
          stage,
          id,
        });
      }
    }
  }
  for (const [placement, { units }] of Object.entries(title.placements)) {
    for (const [network, perPlatform] of Object.entries(units)) {
      for (const platform of platforms) {
        for (const stage of stages) {
          const id = perPlatform[platform]?.[stage];
          if (id === undefined) continue;
          const field = `placements.${placement}.units.${network}.${platform}.${stage}`;
          held.push({ field, network, kind: 'unit', platform, stage, placement, id });
        }
      }
    }
  }
  return held;
}

/** Says what is wrong with a title's values; each with its field, and what would be right. */
export type ValidateTitle = (title: Title, holderElsewhere?: FindHolder) => FieldProblem[];

/** What checks titles against profiles. It is made once for all titles that are checked together. */
export function titleValidator(profiles: readonly Profile[]): ValidateTitle {
  const known = new Map(profiles.map((profile) => [profile.id, profile]));
  const recognise = recogniser(profiles);
  return (title, holderElsewhere = () => undefined) => {
    const ids = heldIds(title);
    return [
      ...unknownNetworks(title, known),
      ...ids.flatMap((held) => idProblems(held, known, recognise)),
      ...clashes(ids, holderElsewhere),
      ...Object.entries(title.placements).flatMap(([name, placement]) =>
        settingProblems(name, placement, known),
      ),
      ...stageProblems(title),
      ...titleCredentialProblems(title, known),
      ...misplaced(title),
    ];
  };
}

/** Values in places where they have no meaning: test devices in production, a tracking text on Android. */
function misplaced(title: Title): FieldProblem[] {
  const devices = Object.entries(title.networks).flatMap(([network, enrolment]) =>
    platforms.flatMap((platform) =>
      enrolment[platform]?.production?.devices
        ? [
            {
              field: `networks.${network}.${platform}.production.devices`,
              message: 'A test device is listed in the production stage, where it would only get test ads.',
              fix: `Move it to networks.${network}.${platform}.test.devices.`,
            },
          ]
        : [],
    ),
  );
  const tracking =
    title.editions.android?.tracking === undefined
      ? []
      : [
          {
            field: 'editions.android.tracking',
            message: 'Only iOS asks for permission to track with a text.',
            fix: 'Move it to editions.ios.tracking.',
          },
        ];
  return [...devices, ...tracking];
}

function unknownNetworks(title: Title, known: ReadonlyMap<string, Profile>): FieldProblem[] {
  const used = [
    ...Object.keys(title.networks).map((id) => ({ id, field: `networks.${id}` })),
    ...Object.entries(title.placements).flatMap(([name, { units }]) =>
      Object.keys(units).map((id) => ({ id, field: `placements.${name}.units.${id}` })),
    ),
  ];
  return used
    .filter(({ id }) => !known.has(id))
    .map(({ id, field }) => ({
      field,
      message: `There is no profile of the network ${id}.`,
      fix: `Use one of ${[...known.keys()].join(', ')}, or add a profile for ${id}.`,
    }));
}

function idProblems(
  held: HeldId,
  known: ReadonlyMap<string, Profile>,
  { recognise }: Recogniser,
): FieldProblem[] {
  const { id, network, kind, platform, stage, field } = held;
  const profile = known.get(network);
  const rules = profile?.ids[kind];
  if (!profile) return [];
  if (!rules) return [{ field, message: `${profile.name} has no ${kind} IDs.`, fix: 'Remove the ID.' }];
  const problem = (message: string, fix: string): FieldProblem[] => [{ field, message, fix }];
  if (id !== id.trim() || /\s/.test(id)) {
    return problem(
      `The ID ${JSON.stringify(id)} contains white space.`,
      `Give it as ${JSON.stringify(id.replace(/\s+/g, ''))}.`,
    );
  }
  const readings = recognise(id);
  const mine = recognise(id, network).filter((reading) => reading.network === network);
  const right = mine.find((reading) => reading.kind === kind);
  if (!right) return wrongShape(held, profile, mine[0]?.kind, readings[0]?.network);
  if (right.platform && right.platform !== platform) {
    return problem(
      `${id} is an ${platformLabels[right.platform]} ID of ${profile.name}.`,
      `Give the one for ${platformLabels[platform]}.`,
    );
  }
  if (right.sample && stage === 'production') {
    return problem(
      `${id} is a sample ID of ${profile.name} for testing; in production it earns nothing.`,
      `Give your own ${rules.label}.`,
    );
  }
  if (right.sample && !right.sample.some((sample) => sample.platform === platform)) {
    return problem(
      `${id} is the ${withPlatformLabels(right.sample[0]?.platform ?? '')} sample of ${profile.name}.`,
      `Give the sample for ${platformLabels[platform]}.`,
    );
  }
  return [];
}

function wrongShape(
  held: HeldId,
  profile: Profile,
  otherKind: IdKindName | undefined,
  owner: string | undefined,
): FieldProblem[] {
  const rules = profile.ids[held.kind];
  const sample = rules && Object.values(rules.samples)[0];
  const example = typeof sample === 'string' ? sample : sample && Object.values(sample)[0];
  const shape = `one that matches ${rules?.pattern ?? ''}${example ? `, as ${example} does` : ''}`;
  const field = held.field;
  const names = { app: 'an app ID', unit: 'a unit ID' };
  if (otherKind) {
    return [
      {
        field,
        message: `${held.id} is ${names[otherKind]} of ${profile.name}, and ${names[held.kind]} belongs here.`,
        fix: `Give ${shape}.`,
      },
    ];
  }
  if (owner)
    return [
      { field, message: `${held.id} is an ID of ${owner}, not of ${profile.id}.`, fix: `Give ${shape}.` },
    ];
  return [
    {
      field,
      message: `${held.id} does not look like ${names[held.kind]} of ${profile.name}.`,
      fix: `Give ${shape}.`,
    },
  ];
}

/** A production ID is for one place only: one placement (or app), on one platform. Test IDs may be shared. */
function clashes(ids: readonly HeldId[], holderElsewhere: FindHolder): FieldProblem[] {
  const first = new Map<string, HeldId & { title?: string }>();
  return ids.flatMap((held): FieldProblem[] => {
    if (held.stage === 'test') return [];
    const key = `${held.network} ${held.id}`;
    const other = first.get(key) ?? holderElsewhere(held.network, held.id);
    if (!other) {
      first.set(key, held);
      return [];
    }
    const owner = [
      other.title && `title ${other.title}`,
      other.placement ? `placement ${other.placement}` : 'the app ID',
    ]
      .filter(Boolean)
      .join(', ');
    return [
      {
        field: held.field,
        message: `${held.id} is already held by ${owner} (${platformLabels[other.platform]}, ${other.stage}).`,
        fix: 'Use a different ID for each.',
      },
    ];
  });
}

function stageProblems(title: Title): FieldProblem[] {
  const production = new Set(title.stages.production.map((name) => name.toLowerCase()));
  return title.stages.test
    .filter((name) => production.has(name.toLowerCase()))
    .map((name) => ({
      field: 'stages',
      message: `“${name}” is under test and under production.`,
      fix: 'Keep it in one of them.',
    }));
}
