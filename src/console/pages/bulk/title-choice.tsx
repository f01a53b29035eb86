import { Choice } from '../../components/controls.js';
import { useAddress } from '../../components/use-address.js';
import { useTitles } from '../../queries.js';

/** The title in hand; it is part of the address. */
export function useChosenTitle(): string {
  const [search] = useAddress();
  const titles = useTitles().data ?? [];
  const asked = titles.find(({ id }) => id === search.get('title'));
  return (asked ?? titles[0])?.id ?? '';
}

/** Chooses one of the titles. */
export function TitleChoice({ label = 'Title' }: { label?: string }) {
  const [, set] = useAddress();
  const titles = useTitles().data ?? [];
  return (
    <Choice
      label={label}
      value={useChosenTitle()}
      set={(title) => set({ title })}
      options={titles.map(({ id, name }) => [id, name] as const)}
    />
  );
}
