import { useCombobox } from 'downshift';
import { useMemo, type HTMLAttributes } from 'react';
import Modal from 'react-bootstrap/Modal';
import { useNavigate } from 'react-router';
import { useSearch, useTitles } from '../../queries.js';
import { useSettled } from '../use-settled.js';
import { commandsWith, pagesWith, placeOf, type Place } from './places.js';

/** So long nothing is asked while somebody types (ms). */
const pause = 120;
const kindWords: Record<Place['kind'], string> = {
  id: 'IDs',
  title: 'Titles',
  placement: 'Placements',
  network: 'Networks',
  rule: 'Rules',
  page: 'Pages',
  command: 'Commands',
};

const nothing = 'No name or ID contains this.';
const keysInWords = '↑ ↓ to choose, Enter to open, Esc to close';

/** Finds anything by its name or ID, and leads to it. */
export function Palette({
  title,
  text,
  setText,
  close,
}: {
  title: string | undefined;
  text: string;
  setText: (text: string) => void;
  close: () => void;
}) {
  const navigate = useNavigate();
  const { places, error, isWaiting } = usePlaces(text, title);
  const { getInputProps, getMenuProps, getItemProps, getLabelProps, highlightedIndex } = useCombobox<Place>({
    items: places,
    inputValue: text,
    isOpen: true,
    defaultHighlightedIndex: 0,
    // Losing the focus chooses nothing.
    stateReducer: (state, { type, changes }) =>
      type === useCombobox.stateChangeTypes.InputBlur ? state : changes,
    itemToString: (place) => place?.name ?? '',
    onSelectedItemChange: ({ selectedItem }) => {
      close();
      if (selectedItem) void navigate(selectedItem.to);
    },
  });
  return (
    <Modal show onHide={close} animation={false} className="palette" aria-label="Find">
      <label {...getLabelProps()} className="visually-hidden">
        Find an ID, a title, a placement, a network, a rule or a page
      </label>
      <input
        {...getInputProps({
          autoFocus: true,
          // Not by the list's own event: it comes later than the next key.
          onChange: ({ currentTarget }) => setText(currentTarget.value),
          onKeyDown: ({ key }) => key === 'Escape' && close(),
        })}
        className="form-control"
        placeholder="Paste an ID, or type a name"
        spellCheck={false}
      />
      <ul {...getMenuProps()} className="palette-hits">
        {places.map((place, index) => (
          <Hit
            key={`${place.kind} ${place.to} ${place.where}`}
            place={place}
            isFirst={place.kind !== places[index - 1]?.kind}
            isNear={index === highlightedIndex}
            props={getItemProps({ item: place, index })}
          />
        ))}
      </ul>
      <div className="palette-foot soft" role="status">
        {error?.problem.detail ?? (isWaiting ? 'Looking…' : places.length === 0 ? nothing : keysInWords)}
      </div>
    </Modal>
  );
}

/** What the text leads to, and whether more may come. */
function usePlaces(text: string, title: string | undefined) {
  const asked = useSettled(text.trim().slice(0, 200), pause);
  const found = useSearch(asked);
  const titles = useTitles().data;
  const own = titles?.find(({ id }) => id === title);
  const places = useMemo(() => {
    const hits = asked === '' ? [] : (found.data ?? []).map(placeOf);
    return [...hits, ...pagesWith(text, own), ...commandsWith(text, title)];
  }, [asked, found.data, text, own, title]);
  const isWaiting = found.isFetching || asked !== text.trim().slice(0, 200);
  return { places, error: found.error, isWaiting };
}

function Hit({
  place: { kind, name, where },
  isFirst,
  isNear,
  props,
}: {
  place: Place;
  isFirst: boolean;
  isNear: boolean;
  props: HTMLAttributes<HTMLLIElement>;
}) {
  return (
    <li {...props} className={isNear ? 'is-near' : undefined}>
      {isFirst && <span className="palette-kind">{kindWords[kind]}</span>}
      <span className={kind === 'id' || kind === 'rule' ? 'palette-name place' : 'palette-name'}>
        <bdi>{name}</bdi>
      </span>
      <span className="soft">{where}</span>
    </li>
  );
}
