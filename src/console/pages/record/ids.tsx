import { valueAt } from '../../../core/text/own-values.js';
import { useState } from 'react';
import type { IdWrite, TitleRecord } from '../../../api/titles.js';
import { platformNames as platformKeys, stageNames } from '../../../core/words/names.js';
import { call, etag } from '../../api.js';
import { Choice } from '../../components/fields.js';
import { platformNames } from '../../components/platform-names.js';
import { useNetworks } from '../../queries.js';
import { useSave } from './use-save.js';

/** Every ID as a field of its own: typed, saved with Enter, refused with the reason. */
export function Ids({ record }: { record: TitleRecord }) {
  const { title } = record;
  const networks = useNetworks();
  const editions = platformKeys.filter((platform) => title.editions[platform]);
  const enrolled = (networks.data ?? []).filter(
    ({ id }) =>
      valueAt(title.networks, id) ?? Object.values(title.placements).some(({ units }) => valueAt(units, id)),
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
                  stageNames.map((stage) => (
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
                ...Object.keys(title.placements).filter((name) =>
                  valueAt(valueAt(title.placements, name)?.units, network),
                ),
              ].map((placement) => (
                <tr key={placement ?? ''}>
                  <th scope="row">{placement ?? <span className="soft">app</span>}</th>
                  {editions.flatMap((platform) =>
                    stageNames.map((stage) => (
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
      ? valueAt(title.networks, network)?.[platform]?.[stage]?.app
      : valueAt(valueAt(title.placements, placement)?.units, network)?.[platform]?.[stage]) ?? '';
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
