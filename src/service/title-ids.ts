import { platformLabels } from '../core/words/platform-labels.js';
import type * as z from 'zod';
import type { IdWrite, TitleRecord } from '../api/titles.js';
import { SecretName, type Title } from '../core/roster/model.js';
import { entryAt, valueAt } from '../core/text/own-values.js';
import type { Stage } from '../core/words/words.js';
import { refuse } from './errors.js';

export type ParsedIdWrite = z.output<typeof IdWrite>;

/**
 * A copy of a title with an ID or a credential set or removed.
 * @throws ServiceError that names the invalid field
 */
export function titleWithId({ id, title }: TitleRecord, write: ParsedIdWrite): Title {
  const { platform, placement, credential } = write;
  const next = structuredClone(title);
  if (credential !== undefined) setCredential(next, write, credential);
  else if (placement === null) setAppId(next, write);
  else setUnitId(id, next, write, placement);
  if (!next.editions[platform]) {
    refuse([
      {
        field: 'platform',
        message: `${id} has no ${platformLabels[platform]} edition.`,
        fix: `Set its identifier first: syndexa title set ${id} --${platform} IDENTIFIER.`,
      },
    ]);
  }
  return next;
}

function setAppId(title: Title, write: ParsedIdWrite): void {
  const { network, platform, stage, value } = write;
  if (value === null) {
    // Credentials and devices of the stage stay.
    takeOut(title, write, ({ app: _, ...others }) => others);
    return;
  }
  const stages = (entryAt(title.networks, network, () => ({}))[platform] ??= {});
  stages[stage] = { ...stages[stage], app: value };
}

function setUnitId(
  id: string,
  title: Title,
  { network, platform, stage, value }: ParsedIdWrite,
  placement: string,
): void {
  const target = valueAt(title.placements, placement);
  if (!target) {
    const known = Object.keys(title.placements).join(', ') || 'none';
    return refuse([
      {
        field: 'placement',
        message: `${id} has no placement ${placement}.`,
        fix: `Its placements are ${known}.`,
      },
    ]);
  }
  if (value === null) {
    delete valueAt(target.units, network)?.[platform]?.[stage];
    return;
  }
  (entryAt(target.units, network, () => ({}))[platform] ??= {})[stage] = value;
}

/** Names the secret of an edition's credential, or takes the name out. The secret itself is refused. */
function setCredential(title: Title, write: ParsedIdWrite, name: string): void {
  const { network, platform, stage, value } = write;
  const parsed = SecretName.safeParse(value ?? 'secret:NONE');
  if (!parsed.success)
    refuse([
      {
        field: 'value',
        message: 'A credential has to be a reference: its value would be stored and shown here.',
        fix: 'Store the value with syndexa secret set NAME, and use secret:NAME here.',
      },
    ]);
  if (value === null) {
    takeOut(title, write, ({ credentials, ...others }) => {
      const { [name]: _, ...left } = credentials ?? {};
      return Object.keys(left).length > 0 ? { ...others, credentials: left } : others;
    });
    return;
  }
  const stages = (entryAt(title.networks, network, () => ({}))[platform] ??= {});
  stages[stage] = { ...stages[stage], credentials: { ...stages[stage]?.credentials, [name]: value } };
}

type StageIds = NonNullable<NonNullable<Title['networks'][string]['android']>[Stage]>;

/** Leaves of a stage's IDs what `left` leaves of them, if there are any; a stage that is empty by then goes too. */
function takeOut(
  title: Title,
  { network, platform, stage }: ParsedIdWrite,
  left: (ids: StageIds) => StageIds,
): void {
  const stages = valueAt(title.networks, network)?.[platform];
  const ids = stages?.[stage];
  if (!stages || !ids) return;
  const others = left(ids);
  if (Object.keys(others).length > 0) stages[stage] = others;
  else delete stages[stage];
}
