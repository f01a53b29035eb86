import { useMutation, useQueryClient, type UseMutationResult } from '@tanstack/react-query';
import type { TitleRecord } from '../../../api/titles.js';
import type { CallError } from '../../api.js';
import { keys } from '../../queries.js';

/** Saves through a call that names the version it saw, and shows what came of it. */
export function useSave<Input>(
  record: TitleRecord,
  save: (input: Input) => Promise<unknown>,
): UseMutationResult<unknown, CallError, Input> {
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
