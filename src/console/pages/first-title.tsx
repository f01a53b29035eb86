import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { TitleRecord } from '../../api/titles.js';
import { call, type CallError } from '../api.js';
import { TextField, words } from '../components/fields.js';
import { ProblemNote } from '../components/states.js';
import { keys } from '../queries.js';

/** Adds a title: the first one, or another. */
export function FirstTitlePage() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [draft, setDraft] = useState({
    id: '',
    name: '',
    android: '',
    ios: '',
    test: 'debug',
    production: 'release',
  });
  const set = (field: keyof typeof draft) => (value: string) => setDraft({ ...draft, [field]: value });
  const add = useMutation<TitleRecord, CallError>({
    mutationFn: () =>
      call('addTitle', {
        body: {
          id: draft.id,
          title: {
            name: draft.name,
            stages: { test: words(draft.test), production: words(draft.production) },
            editions: {
              ...(draft.android ? { android: { identifier: draft.android } } : {}),
              ...(draft.ios ? { ios: { identifier: draft.ios } } : {}),
            },
          },
        },
      }),
    onSuccess: async ({ id }) => {
      // First away from here: once the titles are read again, the home page leads elsewhere by itself.
      await navigate(`/titles/${id}/record`);
      await client.invalidateQueries({ queryKey: keys.titles });
    },
  });
  const common = { error: add.error };
  return (
    <main className="page">
      <h1>Which title do you want to keep true?</h1>
      <p className="lede">
        A title is one product, across platforms. Name it, and say which builds are for testing and which
        ship.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          add.mutate();
        }}
      >
        <div className="fields">
          <TextField
            {...common}
            id="title-name"
            label="Name"
            value={draft.name}
            onChange={set('name')}
            faultsOf={['name']}
            placeholder="Tidewick"
          />
          <TextField
            {...common}
            id="title-id"
            label="Short name"
            value={draft.id}
            onChange={set('id')}
            faultsOf={['id']}
            placeholder="tidewick"
            mono
          />
          <TextField
            {...common}
            id="title-android"
            label="Application ID (Android)"
            value={draft.android}
            onChange={set('android')}
            faultsOf={['android.identifier']}
            mono
          />
          <TextField
            {...common}
            id="title-ios"
            label="Bundle ID (iOS)"
            value={draft.ios}
            onChange={set('ios')}
            faultsOf={['ios.identifier']}
            mono
          />
          <TextField
            {...common}
            id="title-test"
            label="Builds for testing"
            value={draft.test}
            onChange={set('test')}
            faultsOf={['stages', 'stages.test']}
          />
          <TextField
            {...common}
            id="title-production"
            label="Builds that ship"
            value={draft.production}
            onChange={set('production')}
            faultsOf={['stages.production']}
          />
        </div>
        {add.error && <ProblemNote error={add.error} />}
        <button type="submit" className="btn btn-primary mt-3" disabled={add.isPending}>
          Add the title
        </button>
      </form>
      <h2>Or from a document</h2>
      <pre className="empty">syndexa roster import roster.yaml</pre>
    </main>
  );
}
