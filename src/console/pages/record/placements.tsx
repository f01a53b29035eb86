import { counted } from '../../../core/text/counted.js';
import { valueAt } from '../../../core/text/own-values.js';
import { useRef } from 'react';
import type { TitleRecord } from '../../../api/titles.js';
import type { Format } from '../../../core/words/words.js';
import { formatNames } from '../../../core/words/names.js';
import type { Placement } from '../../../core/roster/model.js';
import { call, etag } from '../../api.js';
import { Confirmed } from '../../components/confirmed.js';
import { ProblemNote } from '../../components/states.js';
import { Room, useDrawnRows } from '../../components/virtual.js';
import { shortTable } from './ids.js';
import { FieldConflict } from './field-conflict.js';
import { useDraft, type Draft, type Fields } from './use-draft.js';
import { NewPlacement } from './new-placement.js';
import { useSave } from './use-save.js';

/** @param removed its row goes, and the button with it: the focus has to go elsewhere */
function useRemovePlacement(record: TitleRecord, removed: () => void) {
  return useSave<string>(record, async (name) => {
    await call('removePlacement', {
      params: { title: record.id, placement: name },
      headers: { 'If-Match': etag(valueAt(record.placementVersions, name) ?? 0) },
    });
    removed();
  });
}

const columns = ['Placement', 'Format', 'Where', 'Refresh', 'Networks', 'Other settings', ''];

/** The placements of a title whose names contain a text, and a form for a new one. */
export function Placements({ record, find }: { record: TitleRecord; find: string }) {
  const { title } = record;
  const heading = useRef<HTMLHeadingElement>(null);
  const scroll = useRef<HTMLDivElement>(null);
  const names = Object.keys(title.placements).filter((name) => name.includes(find));
  const { items, before, after, measure } = useDrawnRows(scroll, names.length, 40);
  const remove = useRemovePlacement(record, () => heading.current?.focus());
  return (
    <>
      <h2 ref={heading} tabIndex={-1}>
        Placements <span className="soft">{names.length}</span>
      </h2>
      <div
        className="ledger-scroll"
        style={names.length > shortTable ? undefined : { maxHeight: 'none' }}
        ref={scroll}
        tabIndex={0}
        role="region"
        aria-label="Placements"
      >
        <table className="ledger">
          <thead>
            <tr>
              {columns.map((column) => (
                <th key={column}>
                  {column === '' ? <span className="visually-hidden">take out</span> : column}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            <Room height={before} columns={columns.length} />
            {items.map(({ index }) => {
              const name = names[index] ?? '';
              const placement = valueAt(title.placements, name);
              return (
                placement && (
                  <PlacementRow
                    key={name}
                    index={index}
                    measure={measure}
                    name={name}
                    placement={placement}
                    record={record}
                    remove={() => remove.mutate(name)}
                  />
                )
              );
            })}
            <Room height={after} columns={columns.length} />
          </tbody>
        </table>
      </div>
      {remove.error && <ProblemNote error={remove.error} />}
      <NewPlacement record={record} />
    </>
  );
}

interface PlacementRowProps {
  index: number;
  measure: (row: Element | null) => void;
  name: string;
  placement: Placement;
  record: TitleRecord;
  remove: () => void;
}

/** The fields of a placement that a row has, as they are typed. */
function fieldsOf(placement: Placement | undefined): Fields {
  return {
    format: placement?.format ?? '',
    where: placement?.where ?? '',
    refresh: placement?.settings.refresh ?? '',
  };
}

/** A placement with some fields changed; what the row does not show stays. */
function withFields({ settings, where, ...others }: Placement, changed: Fields): Placement {
  const format = valueAt(changed, 'format');
  const place = valueAt(changed, 'where') ?? where ?? '';
  const { refresh: before, ...rest } = settings;
  const refresh = valueAt(changed, 'refresh') ?? before ?? '';
  return {
    ...others,
    ...(format === undefined ? {} : { format: format as Format }),
    ...(place === '' ? {} : { where: place }),
    settings: refresh === '' ? rest : { ...rest, refresh },
  };
}

/** One placement: format, place in words and refresh are changed here; what is typed is saved on leaving the field. */
function PlacementRow({ index, measure, name, placement, record, remove }: PlacementRowProps) {
  const draft = useDraft({
    record,
    name: `placement ${name}`,
    fieldsOf: ({ title }) => fieldsOf(valueAt(title.placements, name)),
    write: (changed, { id, title, placementVersions }) =>
      call('putPlacement', {
        params: { title: id, placement: name },
        body: withFields(valueAt(title.placements, name) ?? placement, changed),
        headers: { 'If-Match': etag(valueAt(placementVersions, name) ?? 0) },
      }),
  });
  const ids = Object.values(placement.units).flatMap((platforms) =>
    Object.values(platforms).flatMap((stages) => Object.values(stages)),
  ).length;
  return (
    <tr data-index={index} ref={measure}>
      <th scope="row">{name}</th>
      <td>
        <FormatOf name={name} draft={draft} />
      </td>
      <td style={{ minWidth: '16rem' }}>
        <RowField label={`Where is ${name}`} field="where" draft={draft} />
        {draft.error && <ProblemNote error={draft.error} />}
      </td>
      <td style={{ width: '7rem' }}>
        <RowField label={`Refresh of ${name}`} field="refresh" draft={draft} />
      </td>
      <td>{Object.keys(placement.units).join(', ')}</td>
      <td className="soft">{settingsText(placement)}</td>
      <td>
        <Confirmed
          label="Take out"
          name={`Take out ${name}`}
          question={`Take ${name} out${ids === 0 ? '' : ` with its ${counted(ids, 'ID')}`}? History can bring it back.`}
          act={remove}
        />
      </td>
    </tr>
  );
}

function FormatOf({ name, draft }: { name: string; draft: Draft }) {
  const label = `Format of ${name}`;
  return (
    <>
      <select
        className="form-select form-select-sm"
        aria-label={label}
        value={valueAt(draft.values, 'format') ?? ''}
        onChange={(event) => draft.choose({ format: event.target.value })}
      >
        {formatNames.map((choice) => (
          <option key={choice}>{choice}</option>
        ))}
      </select>
      <FieldConflict label={label} field="format" draft={draft} />
    </>
  );
}

function RowField({ label, field, draft }: { label: string; field: string; draft: Draft }) {
  return (
    <>
      <input
        className="form-control form-control-sm"
        aria-label={label}
        value={valueAt(draft.values, field) ?? ''}
        onChange={(event) => draft.set({ [field]: event.target.value })}
        onBlur={draft.save}
        onKeyDown={(event) => {
          if (event.key === 'Enter') draft.save();
          if (event.key === 'Escape') draft.reset();
        }}
      />
      <FieldConflict label={label} field={field} draft={draft} />
    </>
  );
}

function settingsText({ settings }: Placement): string {
  return Object.entries(settings)
    .filter(([key]) => key !== 'refresh')
    .map(
      ([key, value]) =>
        `${key} ${typeof value === 'object' ? (Array.isArray(value) ? value.join('+') : Object.values(value as object).join(' ')) : String(value)}`,
    )
    .join(', ');
}
