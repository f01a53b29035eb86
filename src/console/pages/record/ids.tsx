import { valueAt } from '../../../core/text/own-values.js';
import { useRef, useState } from 'react';
import type { IdWrite, TitleRecord } from '../../../api/titles.js';
import { platformNames, stageNames } from '../../../core/words/names.js';
import { call, etag } from '../../api.js';
import { Choice } from '../../components/fields.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { Room, useDrawnRows } from '../../components/virtual.js';
import { useNetworks } from '../../queries.js';
import { FieldConflict } from './field-conflict.js';
import { useDraft } from './use-draft.js';

/** Longer tables scroll by themselves, and draw only the rows in view. */
export const shortTable = 30;

/** Every ID as a field of its own: typed, saved with Enter, refused with the reason. */
export function Ids({ record, find, only }: { record: TitleRecord; find: string; only: string }) {
  const { title } = record;
  const known = (useNetworks().data ?? []).map(({ id }) => id);
  const enrolled = known.filter(
    (id) =>
      valueAt(title.networks, id) ?? Object.values(title.placements).some(({ units }) => valueAt(units, id)),
  );
  const [more, setMore] = useState('');
  const others = known.filter((id) => !enrolled.includes(id));
  return (
    <>
      {[...enrolled, ...(more ? [more] : [])]
        .filter((network) => only === '' || network === only)
        .map((network) => (
          <NetworkIds key={network} record={record} network={network} find={find} />
        ))}
      {others.length > 0 && (
        <div className="fields">
          <Choice
            id="enrol-network"
            label="Enrol on another network"
            value={more}
            choices={['', ...others]}
            onChange={setMore}
          />
        </div>
      )}
    </>
  );
}

/** The IDs of one network: a row for the app and one for each placement, a column for each platform and stage. */
function NetworkIds({ record, network, find }: { record: TitleRecord; network: string; find: string }) {
  const { editions, placements } = record.title;
  const columns = platformNames
    .filter((platform) => editions[platform])
    .flatMap((platform) => stageNames.map((stage) => ({ platform, stage })));
  const names = Object.keys(placements).filter(
    (name) => name.includes(find) && valueAt(valueAt(placements, name)?.units, network),
  );
  const rows = [...('app'.startsWith(find) ? [null] : []), ...names];
  const scroll = useRef<HTMLDivElement>(null);
  const isLong = rows.length > shortTable;
  const { items, before, after, measure } = useDrawnRows(scroll, rows.length, 38);
  const start = (stage: string) => (stage === 'test' ? 'platform-start' : undefined);
  return (
    <div
      className="ledger-scroll"
      style={isLong ? undefined : { maxHeight: 'none' }}
      ref={scroll}
      tabIndex={0}
      role="region"
      aria-label={`IDs on ${network}`}
    >
      <table className="ledger even">
        <thead>
          <tr>
            <th>{network}</th>
            {columns.map(({ platform, stage }) => (
              <th key={`${platform} ${stage}`} className={start(stage)}>
                {platformLabels[platform]} {stage}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <Room height={before} columns={columns.length + 1} />
          {items.map(({ index }) => {
            const placement = rows[index] ?? null;
            return (
              <tr key={placement ?? ''} data-index={index} ref={measure}>
                <th scope="row">{placement ?? <span className="soft">app</span>}</th>
                {columns.map((column) => (
                  <td key={`${column.platform} ${column.stage}`} className={start(column.stage)}>
                    <IdField record={record} slot={{ network, placement, ...column }} />
                  </td>
                ))}
              </tr>
            );
          })}
          <Room height={after} columns={columns.length + 1} />
        </tbody>
      </table>
    </div>
  );
}

type Slot = Omit<IdWrite, 'value'>;

function heldIn({ title }: TitleRecord, { network, platform, stage, placement }: Slot): string {
  const held =
    placement === null
      ? valueAt(title.networks, network)?.[platform]?.[stage]?.app
      : valueAt(valueAt(title.placements, placement)?.units, network)?.[platform]?.[stage];
  return held ?? '';
}

function IdField({ record, slot }: { record: TitleRecord; slot: Slot }) {
  const { network, platform, stage, placement } = slot;
  const draft = useDraft({
    record,
    name: [network, placement ?? 'app', platform, stage].join(' '),
    fieldsOf: (whole) => ({ id: heldIn(whole, slot) }),
    write: ({ id: next = '' }, { id, version }) =>
      call('setId', {
        params: { title: id },
        headers: { 'If-Match': etag(version) },
        body: { ...slot, value: next === '' ? null : next },
      }),
  });
  const { error } = draft;
  const label = `${placement ?? 'App ID'} on ${network}, ${platformLabels[platform]} ${stage}`;
  return (
    <>
      <input
        className={`form-control form-control-sm id-input${error ? ' is-invalid' : ''}`}
        aria-label={label}
        value={valueAt(draft.values, 'id') ?? ''}
        placeholder={stage === 'test' ? 'sample' : 'missing'}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => draft.set({ id: event.target.value })}
        onBlur={draft.save}
        onKeyDown={(event) => {
          if (event.key === 'Enter') draft.save();
          if (event.key === 'Escape') draft.reset();
        }}
      />
      <FieldConflict label={label} field="id" draft={draft} />
      {error && (
        <div className="field-fault" role="alert">
          {error.problem.errors?.[0]?.message ?? error.problem.detail}{' '}
          {error.problem.errors?.[0]?.fix ?? error.problem.fix}
        </div>
      )}
    </>
  );
}
