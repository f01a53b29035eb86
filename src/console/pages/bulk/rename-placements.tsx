import { renamings, withNames } from '../../../core/roster/bulk/rename.js';
import { TextInput } from '../../components/controls.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { State } from '../../components/states.js';
import { TakingView, useTaking } from '../../components/taking.js';
import { useAddress } from '../../components/use-address.js';
import { useTitle } from '../../queries.js';
import { TitleChoice, useChosenTitle } from './title-choice.js';
import { documentOf } from './titles-document.js';

/** Gives placements other names by a pattern. */
export function RenamePlacements() {
  const title = useChosenTitle();
  const record = useTitle(title);
  const [search, set] = useAddress();
  const [pattern, replacement] = [search.get('from') ?? '', search.get('to') ?? ''];
  const isGiven = pattern !== '' && replacement !== '';
  const read =
    record.data && isGiven ? renamings(record.data.title, pattern, replacement) : { names: [], faults: [] };
  const taking = useTaking(() =>
    documentOf([title], (known, id) => [
      [id, withNames(known, renamings(known, pattern, replacement).names)],
    ]),
  );
  const change = (changes: Record<string, string>) => {
    set(changes);
    taking.forget();
  };
  return (
    <>
      <div className="controls">
        <TitleChoice />
        <TextInput label="Names like" hint="home-*" value={pattern} set={(from) => change({ from })} isMono />
        <span className="soft">become</span>
        <TextInput label="New names" hint="start-*" value={replacement} set={(to) => change({ to })} isMono />
      </div>
      <p className="soft">
        A star stands for any text, which is kept. Code that names a placement has to be changed with it: the
        placebook changes when you wire the tree.
      </p>
      {isGiven && read.names.length + read.faults.length === 0 && (
        <p role="status">No placement matches this name.</p>
      )}
      {read.names.length + read.faults.length > 0 && (
        <LedgerTable heads={['Placement', 'New name']}>
          {[...read.names, ...read.faults].map((one) => (
            <tr key={one.from}>
              <th scope="row">{one.from}</th>
              <td>
                {one.to}{' '}
                {'message' in one && (
                  <State tone="bad" shape="■">
                    {String(one.message)}
                  </State>
                )}
              </td>
            </tr>
          ))}
        </LedgerTable>
      )}
      <TakingView taking={taking} isEmpty={read.names.length === 0 || read.faults.length > 0} />
    </>
  );
}
