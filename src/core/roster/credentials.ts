import { platformLabels } from '../words/platform-labels.js';
import { valueAt } from '../text/own-values.js';
import type { FieldProblem } from '../formats/yaml/read.js';
import { type Profile } from '../network/model.js';
import { platforms, stages } from '../words/words.js';
import type { Publisher, Roster, Title } from './model.js';

/** The secrets that a roster names, each with a description of its use. */
export function credentialUses(roster: Roster): Map<string, string[]> {
  const uses = new Map<string, string[]>();
  const add = (reference: string, use: string) => uses.set(reference, [...(uses.get(reference) ?? []), use]);
  for (const [network, credentials] of Object.entries(roster.publisher?.credentials ?? {}))
    for (const [name, reference] of Object.entries(credentials)) add(reference, `${network}.${name}`);
  for (const [id, title] of Object.entries(roster.titles))
    for (const { network, name, reference, platform, stage } of titleCredentials(title))
      add(reference, `${id}: ${network}.${name} (${platformLabels[platform]}, ${stage})`);
  return uses;
}

function titleCredentials(title: Title) {
  return Object.entries(title.networks).flatMap(([network, enrolment]) =>
    platforms.flatMap((platform) =>
      stages.flatMap((stage) =>
        Object.entries(enrolment[platform]?.[stage]?.credentials ?? {}).map(([name, reference]) => ({
          network,
          platform,
          stage,
          name,
          reference,
        })),
      ),
    ),
  );
}

/** What is wrong with the credentials of a title: each belongs to an edition, by its profile. */
export function titleCredentialProblems(title: Title, known: ReadonlyMap<string, Profile>): FieldProblem[] {
  return titleCredentials(title).flatMap(({ network, platform, stage, name }) =>
    problemsOf(
      known.get(network),
      name,
      'edition',
      `networks.${network}.${platform}.${stage}.credentials.${name}`,
    ),
  );
}

/** What is wrong with the credentials of the publisher: each belongs to an account, by its profile. */
export function publisherProblems(publisher: Publisher, profiles: readonly Profile[]): FieldProblem[] {
  const known = new Map(profiles.map((profile) => [profile.id, profile]));
  return Object.entries(publisher.credentials ?? {}).flatMap(([network, credentials]) => {
    const profile = known.get(network);
    if (!profile)
      return [
        {
          field: `credentials.${network}`,
          message: `There is no profile of the network ${network}.`,
          fix: `Use one of ${[...known.keys()].join(', ')}.`,
        },
      ];
    return Object.keys(credentials).flatMap((name) =>
      problemsOf(profile, name, 'account', `credentials.${network}.${name}`),
    );
  });
}

function problemsOf(
  profile: Profile | undefined,
  name: string,
  scope: 'account' | 'edition',
  field: string,
): FieldProblem[] {
  if (!profile) return [];
  const found = valueAt(profile.credentials, name);
  const right = Object.entries(profile.credentials)
    .filter(([, credential]) => credential.scope === scope)
    .map(([id]) => id);
  if (!found)
    return [
      {
        field,
        message: `${profile.name} has no credential ${name}.`,
        fix: right.length > 0 ? `It has ${right.join(', ')}.` : 'Remove it.',
      },
    ];
  if (found.scope === scope) return [];
  return [
    {
      field,
      message: `The ${found.label} of ${profile.name} is one per ${found.scope}.`,
      fix:
        found.scope === 'edition'
          ? 'Set it for the network of the title.'
          : 'Set it under publisher.credentials.',
    },
  ];
}
