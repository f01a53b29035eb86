import type * as z from 'zod';
import type { IdWrite, TitleRecord } from '../api/titles.js';
import { SecretName, type Title } from '../core/roster/model.js';
import { entryAt, valueAt } from '../core/text/own-values.js';
import { refuse } from './errors.js';

export type ParsedIdWrite = z.output<typeof IdWrite>;

/**
 * A copy of a title with an ID set, a credential named, or either taken out.
 * @throws ServiceError that names the field which is not right
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
        message: `${id} has no ${platform} edition.`,
        fix: `Name its identifier first: syndexa title set ${id} --${platform} IDENTIFIER.`,
      },
    ]);
  }
  return next;
}

function setAppId(title: Title, { network, platform, stage, value }: ParsedIdWrite): void {
  const stages = (entryAt(title.networks, network, () => ({}))[platform] ??= {});
  if (value === null) delete stages[stage];
  else stages[stage] = { ...stages[stage], app: value };
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
  const stages = (entryAt(target.units, network, () => ({}))[platform] ??= {});
  if (value === null) delete stages[stage];
  else stages[stage] = value;
}

/** Names the secret of an edition's credential, or takes the name out. The secret itself is refused. */
function setCredential(title: Title, { network, platform, stage, value }: ParsedIdWrite, name: string): void {
  const parsed = SecretName.safeParse(value ?? 'secret:NONE');
  if (!parsed.success)
    refuse([
      {
        field: 'value',
        message: 'A credential is named, never given: it would be stored and shown here.',
        fix: 'Keep it with syndexa secret set NAME, and give secret:NAME.',
      },
    ]);
  const stages = (entryAt(title.networks, network, () => ({}))[platform] ??= {});
  const { [name]: _, ...others } = stages[stage]?.credentials ?? {};
  stages[stage] = {
    ...stages[stage],
    credentials: value === null ? others : { ...others, [name]: value },
  };
}
