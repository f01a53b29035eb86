import { useCombobox } from 'downshift';
import { useEffect, useMemo, useState } from 'react';
import Modal from 'react-bootstrap/Modal';
import { useNavigate } from 'react-router';
import { useSearch, useTitles } from '../../queries.js';
import { pagesWith, placeOf, type Place } from './places.js';

/** So long nothing is asked while somebody types (ms). */
const pause = 120;
const kindWords: Record<Place['kind'], string> = {
  id: 'IDs',
  title: 'Titles',
  placement: 'Placements',
  network: 'Networks',
  rule: 'Rules',
  page: 'Pages',
};

/** Finds anything by its name or ID, and leads to it. */
export function Palette({ title, close }: { title: string | undefined; close: () => void }) {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const asked = useSettled(text.trim().slice(0, 200), pause);
  const found = useSearch(asked);
  const titles = useTitles().data;
  const own = titles?.find(({ id }) => id === title);
  const places = useMemo(() => {
    const hits = asked === '' ? [] : (found.data ?? []).map(placeOf);
    const pages = pagesWith(text, own);
    return hits.length > 0 || pages.length < 8 ? [...hits, ...pages] : pages;
  }, [asked, found.data, text, own]);
  const { getInputProps, getMenuProps, getItemProps, getLabelProps, highlightedIndex } = useCombobox<Place>({
    items: places,
    inputValue: text,
    isOpen: true,
    defaultHighlightedIndex: 0,
    itemToString: (place) => place?.name ?? '',
    onSelectedItemChange: ({ selectedItem }) => {
      close();
      if (selectedItem) void navigate(selectedItem.to);
    },
  });
  const isWaiting = found.isFetching || asked !== text.trim().slice(0, 200);
  return (
    <Modal show onHide={close} animation={false} className="palette" aria-label="Find">
      <label {...getLabelProps()} className="visually-hidden">
        Find an ID, a title, a placement, a network, a rule or a page
      </label>
      <input
        {...getInputProps({
          autoFocus: true,
          // Not by the list's own event: it comes later than the next key.
          onChange: (event) => setText(event.currentTarget.value),
          onKeyDown: (event) => {
            if (event.key === 'Escape') close();
          },
        })}
        className="form-control"
        placeholder="Paste an ID, or type a name"
        spellCheck={false}
      />
      <ul {...getMenuProps()} className="palette-hits">
        {places.map((place, index) => (
          <li
            key={`${place.kind} ${place.to} ${place.where}`}
            className={index === highlightedIndex ? 'is-near' : undefined}
            {...getItemProps({ item: place, index })}
          >
            {place.kind !== places[index - 1]?.kind && (
              <span className="palette-kind">{kindWords[place.kind]}</span>
            )}
            <span
              className={place.kind === 'id' || place.kind === 'rule' ? 'palette-name place' : 'palette-name'}
            >
              <bdi>{place.name}</bdi>
            </span>
            <span className="soft">{place.where}</span>
          </li>
        ))}
      </ul>
      <div className="palette-foot soft" role="status">
        {found.error
          ? found.error.problem.detail
          : isWaiting
            ? 'Looking…'
            : places.length === 0
              ? 'Nothing has this in its name or ID.'
              : '↑ ↓ to choose, Enter to open, Esc to close'}
      </div>
    </Modal>
  );
}

/** A value once it has stayed the same for some time. */
function useSettled(value: string, after: number): string {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), after);
    return () => clearTimeout(timer);
  }, [value, after]);
  return settled;
}
