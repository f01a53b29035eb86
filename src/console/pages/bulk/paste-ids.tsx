import { counted } from '../../../core/text/counted.js';
import { readPastedIds, withIds } from '../../../core/roster/bulk/pasted-ids.js';
import { LeftOut } from '../../components/states.js';
import { TakingView, useTaking } from '../../components/taking.js';
import { TextArea } from '../../components/text-area.js';
import { useKept } from '../../components/use-kept.js';
import { useNetworks, useTitle } from '../../queries.js';
import { TitleChoice, useChosenTitle } from './title-choice.js';
import { documentOf } from './titles-document.js';

const example =
  'placement\tnetwork\tplatform\tstage\tid\ntide-list-footer\tcobalt-heron\tandroid\tproduction\tCH-U-204417-…';

/** Sets the IDs of many placements from a table, as it is copied out of a spreadsheet. */
export function PasteIds() {
  const title = useChosenTitle();
  const networks = useNetworks().data ?? [];
  const record = useTitle(title);
  const [text, setText, forget] = useKept('pasted IDs');
  const read = record.data ? readPastedIds(text, record.data.title, networks) : { ids: [], faults: [] };
  const taking = useTaking(
    () =>
      documentOf([title], (known, id) => [[id, withIds(known, readPastedIds(text, known, networks).ids)]]),
    forget,
  );
  return (
    <>
      <div className="controls">
        <TitleChoice />
      </div>
      <TextArea
        id="pasted-ids"
        label="The table: placement (empty for an app ID), network, platform, stage, ID"
        text={text}
        set={(next) => {
          setText(next);
          taking.forget();
        }}
        hint={example}
        rows={6}
      />
      {text.trim() !== '' && (
        <p role="status" className="mt-2">
          {counted(read.ids.length, 'ID')} to set
        </p>
      )}
      <LeftOut rows={read.faults} />
      <TakingView taking={taking} isEmpty={read.ids.length === 0} />
    </>
  );
}
