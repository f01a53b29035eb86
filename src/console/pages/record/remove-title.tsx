import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { counted } from '../../../core/text/counted.js';
import type { TitleRecord } from '../../../api/titles.js';
import { call, etag, type CallError } from '../../api.js';
import { TextField } from '../../components/fields.js';
import { ProblemNote } from '../../components/states.js';

/** Takes a title out of the record. Nothing brings it back but a document, so its short name has to be typed. */
export function RemoveTitle({ record: { id, version, title } }: { record: TitleRecord }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const remove = useMutation<unknown, CallError>({
    mutationFn: () => call('removeTitle', { params: { title: id }, headers: { 'If-Match': etag(version) } }),
    onSuccess: async () => {
      await navigate('/');
      await client.invalidateQueries();
    },
  });
  const placements = Object.keys(title.placements).length;
  return (
    <details className="mt-4">
      <summary>Remove the title from the record</summary>
      <p>
        {title.name} goes, with {counted(placements, 'placement')} and all its IDs. Save a document first if
        you may need it again. Trees are not changed.
      </p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          remove.mutate();
        }}
      >
        <div className="fields">
          <TextField
            id="remove-title"
            label={`Type ${id} to confirm`}
            value={typed}
            onChange={setTyped}
            mono
          />
        </div>
        <button
          type="submit"
          className="btn btn-sm btn-outline-danger mt-2"
          disabled={typed !== id || remove.isPending}
        >
          Take {title.name} out
        </button>
      </form>
      {remove.error && <ProblemNote error={remove.error} />}
    </details>
  );
}
