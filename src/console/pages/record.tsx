import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useParams } from 'react-router';
import type { IdWrite, TitleRecord } from '../../api/titles.js';
import type { Format, Platform, Stage } from '../../core/network/model.js';
import type { Placement } from '../../core/roster/model.js';
import { call, etag, type CallError } from '../api.js';
import { Choice, TextField, words } from '../components/fields.js';
import { Failure, Loading, ProblemNote } from '../components/states.js';
import { keys, useNetworks, useTitle } from '../queries.js';
import { platformNames } from './board.js';

const formats: readonly Format[] = [
  'banner',
  'interstitial',
  'rewarded',
  'native',
  'splash',
  'video',
  'notification',
];
const platforms: readonly Platform[] = ['android', 'ios'];
const stages: readonly Stage[] = ['test', 'production'];

/** What the record says of a title, to read and to change. */
export function RecordPage() {
  const { title = '' } = useParams();
  const record = useTitle(title);
  if (record.status === 'pending') return <Loading what="the record" />;
  if (record.status === 'error') return <Failure error={record.error} again={() => void record.refetch()} />;
  return <RecordOf key={title} record={record.data} />;
}

function RecordOf({ record }: { record: TitleRecord }) {
  return (
    <main className="page">
      <h1>What does the record say of {record.title.name}?</h1>
      <p className="lede">
        Version {record.version}. Every change is kept in the history; a value that is not right is refused
        here as in the terminal.
      </p>
      <HeadForm record={record} />
      <h2>Placements</h2>
      <Placements record={record} />
      <h2>IDs</h2>
      <Ids record={record} />
    </main>
  );
}

/** Saves through a call that names the version it saw, and shows what came of it. */
function useSave<Input>(record: TitleRecord, save: (input: Input) => Promise<unknown>) {
  const client = useQueryClient();
  return useMutation<unknown, CallError, Input>({
    mutationFn: save,
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.title(record.id) });
      await client.invalidateQueries({ queryKey: keys.board(record.id) });
      await client.invalidateQueries({ queryKey: keys.titles });
    },
  });
}

function HeadForm({ record }: { record: TitleRecord }) {
  const { title, id, version } = record;
  const [draft, setDraft] = useState({
    name: title.name,
    audience: title.audience,
    android: title.editions.android?.identifier ?? '',
    ios: title.editions.ios?.identifier ?? '',
    test: title.stages.test.join(', '),
    production: title.stages.production.join(', '),
  });
  const set = (field: keyof typeof draft) => (value: string) => setDraft({ ...draft, [field]: value });
  const save = useSave<null>(record, () =>
    call('changeTitle', {
      params: { title: id },
      headers: { 'If-Match': etag(version) },
      body: {
        name: draft.name,
        audience: draft.audience,
        stages: { test: words(draft.test), production: words(draft.production) },
        editions: {
          ...(draft.android ? { android: { identifier: draft.android } } : {}),
          ...(draft.ios ? { ios: { identifier: draft.ios } } : {}),
        },
      },
    }),
  );
  const common = { error: save.error };
  return (
    <form
      aria-label="Title"
      onSubmit={(event) => {
        event.preventDefault();
        save.mutate(null);
      }}
    >
      <div className="fields">
        <TextField
          {...common}
          id="record-name"
          label="Name"
          value={draft.name}
          onChange={set('name')}
          faultsOf={['name']}
        />
        <Choice
          id="record-audience"
          label="Audience"
          value={draft.audience}
          choices={['general', 'mixed', 'children']}
          onChange={set('audience')}
        />
        <TextField
          {...common}
          id="record-android"
          label="Application ID (Android)"
          value={draft.android}
          onChange={set('android')}
          faultsOf={['android.identifier']}
          mono
        />
        <TextField
          {...common}
          id="record-ios"
          label="Bundle ID (iOS)"
          value={draft.ios}
          onChange={set('ios')}
          faultsOf={['ios.identifier']}
          mono
        />
        <TextField
          {...common}
          id="record-test"
          label="Builds for testing"
          value={draft.test}
          onChange={set('test')}
          faultsOf={['stages', 'stages.test']}
        />
        <TextField
          {...common}
          id="record-production"
          label="Builds that ship"
          value={draft.production}
          onChange={set('production')}
          faultsOf={['stages.production']}
        />
      </div>
      {save.error && <ProblemNote error={save.error} />}
      <button type="submit" className="btn btn-sm btn-primary mt-2" disabled={save.isPending}>
        Save the title
      </button>
      {save.isSuccess && <span className="soft ms-2">saved</span>}
    </form>
  );
}

function Placements({ record }: { record: TitleRecord }) {
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
      headers: { 'If-Match': etag(placementVersions[name] ?? 0) },
    }),
  );
  const known = networks.data?.map((network) => network.id) ?? [];
  const network = draft.network || known[0] || '';
  const change = (name: string, part: Partial<Placement>) => {
    const before = title.placements[name];
    if (before)
      put.mutate({ name, placement: { ...before, ...part }, version: placementVersions[name] ?? 0 });
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
            choices={formats}
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
          {formats.map((choice) => (
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

/** Every ID as a field of its own: typed, saved with Enter, refused with the reason. */
function Ids({ record }: { record: TitleRecord }) {
  const { title } = record;
  const networks = useNetworks();
  const editions = platforms.filter((platform) => title.editions[platform]);
  const enrolled = (networks.data ?? []).filter(
    ({ id }) => title.networks[id] ?? Object.values(title.placements).some(({ units }) => units[id]),
  );
  const [more, setMore] = useState('');
  const others = (networks.data ?? [])
    .map(({ id }) => id)
    .filter((id) => !enrolled.some((network) => network.id === id));
  const shown = [...enrolled.map(({ id }) => id), ...(more ? [more] : [])];
  return (
    <>
      {shown.map((network) => (
        <div key={network} className="ledger-scroll" style={{ maxHeight: 'none' }}>
          <table className="ledger even">
            <thead>
              <tr>
                <th>{network}</th>
                {editions.flatMap((platform) =>
                  stages.map((stage) => (
                    <th
                      key={`${platform} ${stage}`}
                      className={stage === 'test' ? 'platform-start' : undefined}
                    >
                      {platformNames[platform]} {stage}
                    </th>
                  )),
                )}
              </tr>
            </thead>
            <tbody>
              {[
                null,
                ...Object.keys(title.placements).filter((name) => title.placements[name]?.units[network]),
              ].map((placement) => (
                <tr key={placement ?? ''}>
                  <th scope="row">{placement ?? <span className="soft">app</span>}</th>
                  {editions.flatMap((platform) =>
                    stages.map((stage) => (
                      <td
                        key={`${platform} ${stage}`}
                        className={stage === 'test' ? 'platform-start' : undefined}
                      >
                        <IdField record={record} slot={{ network, platform, stage, placement }} />
                      </td>
                    )),
                  )}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
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

type Slot = Omit<IdWrite, 'value'>;

function IdField({ record, slot }: { record: TitleRecord; slot: Slot }) {
  const { network, platform, stage, placement } = slot;
  const { title, id, version } = record;
  const held =
    (placement === null
      ? title.networks[network]?.[platform]?.[stage]?.app
      : title.placements[placement]?.units[network]?.[platform]?.[stage]) ?? '';
  const [typed, setTyped] = useState<string | null>(null);
  const value = typed ?? held;
  const save = useSave<string>(record, (next) =>
    call('setId', {
      params: { title: id },
      headers: { 'If-Match': etag(version) },
      body: { ...slot, value: next === '' ? null : next },
    }),
  );
  const commit = () => {
    if (typed !== null && typed !== held) save.mutate(typed, { onSuccess: () => setTyped(null) });
  };
  const label = `${placement ?? 'App ID'} on ${network}, ${platformNames[platform]} ${stage}`;
  return (
    <>
      <input
        className={`form-control form-control-sm id-input${save.error ? ' is-invalid' : ''}`}
        aria-label={label}
        value={value}
        placeholder={stage === 'test' ? 'sample' : 'missing'}
        spellCheck={false}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter') commit();
          if (event.key === 'Escape') setTyped(null);
        }}
      />
      {save.error && (
        <div className="field-fault" role="alert">
          {save.error.problem.errors?.[0]?.message ?? save.error.problem.detail}{' '}
          {save.error.problem.errors?.[0]?.fix ?? save.error.problem.fix}
        </div>
      )}
    </>
  );
}
