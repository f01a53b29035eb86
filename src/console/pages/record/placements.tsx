import { valueAt } from '../../../core/text/own-values.js';
import { useState } from 'react';
import type { TitleRecord } from '../../../api/titles.js';
import type { Format } from '../../../core/words/words.js';
import { formatNames } from '../../../core/words/names.js';
import type { Placement } from '../../../core/roster/model.js';
import { call, etag } from '../../api.js';
import { Choice, TextField } from '../../components/fields.js';
import { ProblemNote } from '../../components/states.js';
import { useNetworks } from '../../queries.js';
import { useSave } from './use-save.js';

interface PlacementWrite {
  name: string;
  placement: Placement;
  /** The version that was seen; null for a new placement. */
  version: number | null;
}

function usePutPlacement(record: TitleRecord) {
  return useSave<PlacementWrite>(record, ({ name, placement, version }) =>
    call('putPlacement', {
      params: { title: record.id, placement: name },
      body: placement,
      headers: version === null ? { 'If-None-Match': '*' } : { 'If-Match': etag(version) },
    }),
  );
}

const columns = ['Placement', 'Format', 'Where', 'Refresh', 'Networks', 'Other settings', ''];

/** The placements of a title, and a form for a new one. */
export function Placements({ record }: { record: TitleRecord }) {
  const { id, title, placementVersions } = record;
  const put = usePutPlacement(record);
  const remove = useSave<string>(record, (name) =>
    call('removePlacement', {
      params: { title: id, placement: name },
      headers: { 'If-Match': etag(valueAt(placementVersions, name) ?? 0) },
    }),
  );
  const change = (name: string, part: Partial<Placement>) => {
    const before = valueAt(title.placements, name);
    if (before)
      put.mutate({ name, placement: { ...before, ...part }, version: valueAt(placementVersions, name) ?? 0 });
  };
  const error = put.error ?? remove.error;
  return (
    <>
      <div className="ledger-scroll" style={{ maxHeight: 'none' }}>
        <table className="ledger">
          <thead>
            <tr>
              {columns.map((column) => (
                <th key={column}>{column}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {Object.entries(title.placements).map(([name, placement]) => (
              <PlacementRow
                key={name}
                name={name}
                placement={placement}
                change={(part) => change(name, part)}
                remove={() => remove.mutate(name)}
              />
            ))}
          </tbody>
        </table>
      </div>
      {error && <ProblemNote error={error} />}
      <NewPlacement record={record} />
    </>
  );
}

function useNewPlacement(record: TitleRecord) {
  const known = useNetworks().data?.map((network) => network.id) ?? [];
  const put = usePutPlacement(record);
  const [draft, setDraft] = useState({ name: '', format: 'banner', where: '', network: '' });
  const set = (field: keyof typeof draft) => (value: string) => setDraft({ ...draft, [field]: value });
  const network = draft.network || known[0] || '';
  const add = () => {
    const placement: Placement = {
      format: draft.format as Format,
      ...(draft.where ? { where: draft.where } : {}),
      settings: {},
      units: network ? { [network]: {} } : {},
    };
    const cleared = { ...draft, name: '', where: '' };
    put.mutate({ name: draft.name, placement, version: null }, { onSuccess: () => setDraft(cleared) });
  };
  return { draft, set, known, network, put, add };
}

function NewPlacement({ record }: { record: TitleRecord }) {
  const { draft, set, known, network, put, add } = useNewPlacement(record);
  const choice = (id: string, label: string, value: string, choices: readonly string[]) => (
    <Choice
      id={`placement-${id}`}
      label={label}
      value={value}
      choices={choices}
      onChange={set(id as keyof typeof draft)}
    />
  );
  return (
    <form
      aria-label="New placement"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      {put.error && <ProblemNote error={put.error} />}
      <div className="fields">
        <TextField
          id="placement-name"
          label="New placement"
          value={draft.name}
          onChange={set('name')}
          error={put.error}
          faultsOf={['placement']}
          placeholder="tide-list-footer"
          mono
        />
        {choice('format', 'Format', draft.format, formatNames)}
        <TextField
          id="placement-where"
          label="Where, in words"
          value={draft.where}
          onChange={set('where')}
          placeholder="under the tide list"
        />
        {choice('network', 'Network', network, known)}
        <div>
          <button
            type="submit"
            className="btn btn-sm btn-primary"
            disabled={put.isPending || draft.name === ''}
          >
            Add the placement
          </button>
        </div>
      </div>
    </form>
  );
}

interface PlacementRowProps {
  name: string;
  placement: Placement;
  change: (part: Partial<Placement>) => void;
  remove: () => void;
}

/** One placement: format, place in words and refresh are changed here; what is typed is saved on leaving the field. */
function PlacementRow({ name, placement, change, remove }: PlacementRowProps) {
  const { format, where, settings, units } = placement;
  const [draft, setDraft] = useState({ where: where ?? '', refresh: settings.refresh ?? '' });
  const commit = () => {
    if (draft.where !== (where ?? '')) change({ where: draft.where === '' ? undefined : draft.where });
    if (draft.refresh !== (settings.refresh ?? '')) {
      const { refresh: _, ...others } = settings;
      change({ settings: draft.refresh === '' ? others : { ...others, refresh: draft.refresh } });
    }
  };
  const field = (label: string, key: keyof typeof draft) => (
    <input
      className="form-control form-control-sm"
      aria-label={`${label} ${name}`}
      value={draft[key]}
      onChange={(event) => setDraft({ ...draft, [key]: event.target.value })}
      onBlur={commit}
      onKeyDown={(event) => {
        if (event.key === 'Enter') commit();
      }}
    />
  );
  return (
    <tr>
      <th scope="row">{name}</th>
      <td>
        <select
          className="form-select form-select-sm"
          aria-label={`Format of ${name}`}
          value={format}
          onChange={(event) => change({ format: event.target.value as Format })}
        >
          {formatNames.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      </td>
      <td style={{ minWidth: '16rem' }}>{field('Where is', 'where')}</td>
      <td style={{ width: '7rem' }}>{field('Refresh of', 'refresh')}</td>
      <td>{Object.keys(units).join(', ')}</td>
      <td className="soft">{settingsText(placement)}</td>
      <td>
        <button
          type="button"
          className="btn btn-sm btn-outline-secondary"
          onClick={remove}
          aria-label={`Take out ${name}`}
        >
          Take out
        </button>
      </td>
    </tr>
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
