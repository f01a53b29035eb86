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

/** The placements of a title, and a form for a new one. */
export function Placements({ record }: { record: TitleRecord }) {
  const { id, title, placementVersions } = record;
  const networks = useNetworks();
  const [draft, setDraft] = useState({ name: '', format: 'banner', where: '', network: '' });
  const set = (field: keyof typeof draft) => (value: string) => setDraft({ ...draft, [field]: value });
  const put = useSave<{ name: string; placement: Placement; version: number | null }>(
    record,
    ({ name, placement, version }) =>
      call('putPlacement', {
        params: { title: id, placement: name },
        body: placement,
        headers: version === null ? { 'If-None-Match': '*' } : { 'If-Match': etag(version) },
      }),
  );
  const remove = useSave<string>(record, (name) =>
    call('removePlacement', {
      params: { title: id, placement: name },
      headers: { 'If-Match': etag(valueAt(placementVersions, name) ?? 0) },
    }),
  );
  const known = networks.data?.map((network) => network.id) ?? [];
  const network = draft.network || known[0] || '';
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
              <th>Placement</th>
              <th>Format</th>
              <th>Where</th>
              <th>Refresh</th>
              <th>Networks</th>
              <th>Other settings</th>
              <th />
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
      <form
        aria-label="New placement"
        onSubmit={(event) => {
          event.preventDefault();
          const placement: Placement = {
            format: draft.format as Format,
            ...(draft.where ? { where: draft.where } : {}),
            settings: {},
            units: network ? { [network]: {} } : {},
          };
          put.mutate(
            { name: draft.name, placement, version: null },
            { onSuccess: () => setDraft({ ...draft, name: '', where: '' }) },
          );
        }}
      >
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
          <Choice
            id="placement-format"
            label="Format"
            value={draft.format}
            choices={formatNames}
            onChange={set('format')}
          />
          <TextField
            id="placement-where"
            label="Where, in words"
            value={draft.where}
            onChange={set('where')}
            placeholder="under the tide list"
          />
          <Choice
            id="placement-network"
            label="Network"
            value={network}
            choices={known}
            onChange={set('network')}
          />
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
    </>
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
