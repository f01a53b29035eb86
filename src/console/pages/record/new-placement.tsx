import type { TitleRecord } from '../../../api/titles.js';
import { formatNames } from '../../../core/words/names.js';
import type { Format } from '../../../core/words/words.js';
import type { Placement } from '../../../core/roster/model.js';
import { call } from '../../api.js';
import { Choice, TextField } from '../../components/fields.js';
import { ProblemNote } from '../../components/states.js';
import { useKeptFields } from '../../components/use-kept-fields.js';
import { useNetworks } from '../../queries.js';
import { useSave } from './use-save.js';

interface NewPlacementWrite {
  name: string;
  placement: Placement;
}

function useAddPlacement(record: TitleRecord) {
  return useSave<NewPlacementWrite>(record, ({ name, placement }) =>
    call('putPlacement', {
      params: { title: record.id, placement: name },
      body: placement,
      headers: { 'If-None-Match': '*' },
    }),
  );
}

function useNewPlacement(record: TitleRecord) {
  const known = useNetworks().data?.map((network) => network.id) ?? [];
  const put = useAddPlacement(record);
  const blank = { name: '', format: 'banner', where: '', network: '' };
  const [draft, setDraft] = useKeptFields(`new placement ${record.id}`, blank);
  const set = (field: keyof typeof draft) => (value: string) => setDraft({ [field]: value });
  const network = draft.network || known[0] || '';
  const add = () => {
    const placement: Placement = {
      format: draft.format as Format,
      ...(draft.where ? { where: draft.where } : {}),
      settings: {},
      units: network ? { [network]: {} } : {},
    };
    put.mutate({ name: draft.name, placement }, { onSuccess: () => setDraft({ name: '', where: '' }) });
  };
  return { draft, set, known, network, put, add };
}

/** A form for a placement that is not there yet. */
export function NewPlacement({ record }: { record: TitleRecord }) {
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
