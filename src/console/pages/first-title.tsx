import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Link, useNavigate } from 'react-router';
import type { TitleRecord } from '../../api/titles.js';
import { call, type CallError } from '../api.js';
import { TextField } from '../components/fields.js';
import { ProblemNote } from '../components/states.js';
import { meaningOf, TitleFields } from '../components/title-fields.js';
import { useKeptFields } from '../components/use-kept-fields.js';
import { keys } from '../queries.js';
import { Heading } from '../components/heading.js';

/** Adds a title: the first one, or another. */
export function FirstTitlePage() {
  return (
    <main className="page">
      <Heading>Which title do you want to keep true?</Heading>
      <p className="lede">
        A title is one product, across platforms. Name it, and say which builds are for testing and which
        ship.
      </p>
      <TitleForm />
      <h2>Or from existing trees</h2>
      <p>
        <Link to="/titles/adopt">Draft a title from what your trees already contain.</Link>
      </p>
      <h2>Or from a document</h2>
      <p>
        <Link to="/documents">Import a roster document.</Link>
      </p>
    </main>
  );
}

const blank = { id: '', name: '', android: '', ios: '', test: 'debug', production: 'release' };

function TitleForm() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [draft, setDraft, forget] = useKeptFields('new title', blank);
  const add = useMutation<TitleRecord, CallError>({
    mutationFn: () => call('addTitle', { body: { id: draft.id, title: meaningOf(draft) } }),
    onSuccess: async ({ id }) => {
      forget();
      // First away from here: once the titles are read again, the home page leads elsewhere by itself.
      await navigate(`/titles/${id}/record`);
      await client.invalidateQueries({ queryKey: keys.titles });
    },
  });
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
    >
      <div className="fields">
        <TextField
          id="title-id"
          label="Short name"
          value={draft.id}
          onChange={(id) => setDraft({ id })}
          faultsOf={['id']}
          error={add.error}
          placeholder="tidewick"
          mono
        />
        <TitleFields prefix="title" draft={draft} change={setDraft} error={add.error} />
      </div>
      {add.error && <ProblemNote error={add.error} />}
      <button type="submit" className="btn btn-primary mt-3" disabled={add.isPending}>
        Add the title
      </button>
    </form>
  );
}
