import type { Survey } from '../../../core/facts/model.js';
import { factDetail, labelOf } from '../../../core/facts/show.js';
import { sideBySide, type Side, type SideRow } from '../../../core/facts/side-by-side.js';
import { Choice, Controls, Finder, NetworkChoice } from '../../components/controls.js';
import { Chain, SourceOnDemand } from '../../components/evidence.js';
import { IdText } from '../../components/id-text.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import type { Platform } from '../../../core/words/words.js';
import { Shown } from '../../components/shown.js';
import { Empty, State } from '../../components/states.js';
import { useMore } from '../../components/use-more.js';
import { useAddress } from '../../components/use-address.js';
import { useNetworks } from '../../queries.js';
import { useSurvey, type Question } from '../../tree-queries.js';

/** What each variant would carry: what they have in common once, what they differ in side by side. */
export function CarriesView({ platform, question }: { platform: Platform; question: Question }) {
  return (
    <Shown answer={useSurvey(question)}>
      {(survey) => <Carried survey={survey} platform={platform} question={question} />}
    </Shown>
  );
}

interface Filter {
  find: string;
  kind: string;
  network: string;
}

function Carried({ survey, platform, question }: { survey: Survey; platform: Platform; question: Question }) {
  const [search, set] = useAddress();
  const networks = useNetworks().data ?? [];
  const filter: Filter = {
    find: (search.get('find') ?? '').trim().toLowerCase(),
    kind: search.get('kind') ?? '',
    network: search.get('network') ?? '',
  };
  const editions = survey.editions.filter((edition) => edition.platform === platform);
  if (editions.length === 0)
    return <Empty>The tree that was read builds nothing for {platformLabels[platform]}.</Empty>;
  const mine = survey.facts.filter((fact) => fact.platform === platform);
  const kinds = [...new Set(mine.map(({ kind }) => kind))].map((kind) => [kind, labelOf(kind)] as const);
  const used = new Set(mine.map(({ network }) => network));
  return (
    <>
      <Controls name="What it contains">
        <Finder
          label="Find a value, a placement"
          value={search.get('find') ?? ''}
          set={(find) => set({ find })}
        />
        <Choice
          label="Kind"
          all="every kind"
          value={filter.kind}
          set={(kind) => set({ kind })}
          options={kinds}
        />
        <NetworkChoice
          value={filter.network}
          set={(network) => set({ network })}
          networks={networks.filter(({ id }) => used.has(id)).map(({ id, name }) => [id, name] as const)}
        />
      </Controls>
      {editions.map((edition) => (
        <ModuleFacts
          key={edition.module}
          edition={edition}
          survey={survey}
          filter={filter}
          isNamed={editions.length > 1}
          question={question}
        />
      ))}
    </>
  );
}

/** Rows of a table that are drawn at first. */
const rowsAtOnce = 200;

interface ModuleProps {
  edition: Survey['editions'][number];
  survey: Survey;
  filter: Filter;
  isNamed: boolean;
  question: Question;
}

function ModuleFacts({
  edition: { platform, module, variants },
  survey,
  filter,
  isNamed,
  question,
}: ModuleProps) {
  const isMine = (item: { platform: string; module: string }) =>
    item.platform === platform && item.module === module;
  const names = variants.map(({ name }) => name);
  const { shared, differing } = sideBySide(
    { facts: survey.facts.filter(isMine), unresolved: survey.unresolved.filter(isMine) },
    names,
  );
  const wanted = (rows: readonly SideRow[]) => rows.filter((row) => isWanted(row, filter));
  const [common, apart] = [wanted(shared), wanted(differing)];
  const [someCommon, moreCommon] = useMore(common, rowsAtOnce);
  const [someApart, moreApart] = useMore(apart, rowsAtOnce);
  return (
    <section aria-label={module}>
      {isNamed && <h2>{module}</h2>}
      <ul className="chips">
        {variants.map(({ name, stage, stageWhy }) => (
          <li key={name} title={stageWhy}>
            {name} <span className={`state state-${stage ? 'good' : 'open'}`}>{stage ?? 'no stage'}</span>
          </li>
        ))}
      </ul>
      {common.length + apart.length === 0 && <Empty>Nothing matches.</Empty>}
      {apart.length > 0 && (
        <>
          <h2>
            Where the variants differ <span className="soft">{apart.length}</span>
          </h2>
          <LedgerTable heads={['What', 'Value', 'In']} className="carried">
            {someApart.map((row) => (
              <DifferingRow key={row.key} row={row} question={question} />
            ))}
          </LedgerTable>
          {moreApart}
        </>
      )}
      {common.length > 0 && (
        <>
          <h2>
            {names.length === 1 ? 'What it contains' : `The same in all ${names.length} variants`}{' '}
            <span className="soft">{common.length}</span>
          </h2>
          <LedgerTable heads={['What', 'Value', 'Evidence']} className="carried">
            {someCommon.map((row) => (
              <SharedRow key={row.key} row={row} question={question} />
            ))}
          </LedgerTable>
          {moreCommon}
        </>
      )}
    </section>
  );
}

function isWanted({ kind, label, subject, network, sides }: SideRow, filter: Filter): boolean {
  if (filter.kind !== '' && kind !== filter.kind) return false;
  if (filter.network !== '' && network !== filter.network) return false;
  const values = sides.flatMap((side) =>
    'facts' in side ? side.facts.map(({ value }) => value) : [side.unresolved.what],
  );
  return [label, subject ?? '', network ?? '', ...values].join(' ').toLowerCase().includes(filter.find);
}

function What({ row: { label, subject, network }, rows = 1 }: { row: SideRow; rows?: number }) {
  return (
    <th scope="row" rowSpan={rows}>
      {label}
      <div className="soft fw-normal">{[subject, network].filter(Boolean).join(' · ')}</div>
    </th>
  );
}

function SharedRow({ row, question }: { row: SideRow; question: Question }) {
  return row.sides.map((side, index) => (
    <tr key={index} className={index > 0 ? 'goes-on' : undefined}>
      {index === 0 && <What row={row} rows={row.sides.length} />}
      <td className="text-break">
        <Value side={side} />
      </td>
      <td>
        <Evidence side={side} question={question} />
      </td>
    </tr>
  ));
}

/** A line for each different thing that variants carry, and one for those that carry nothing. */
function DifferingRow({ row, question }: { row: SideRow; question: Question }) {
  const lines = row.sides.length + (row.without.length > 0 ? 1 : 0);
  return (
    <>
      {row.sides.map((side, index) => (
        <tr key={index} className={index > 0 ? 'goes-on' : undefined}>
          {index === 0 && <What row={row} rows={lines} />}
          <td className="text-break">
            <Value side={side} />
            <Evidence side={side} question={question} />
          </td>
          <td data-label="In">
            {side.variants.map((name) => (
              <span key={name} className="variant">
                {name}
              </span>
            ))}
          </td>
        </tr>
      ))}
      {row.without.length > 0 && (
        <tr className={row.sides.length > 0 ? 'goes-on' : undefined}>
          {row.sides.length === 0 && <What row={row} />}
          <td className="soft">nothing</td>
          <td data-label="In">
            {row.without.map((name) => (
              <span key={name} className="variant">
                {name}
              </span>
            ))}
          </td>
        </tr>
      )}
    </>
  );
}

function Value({ side }: { side: Side }) {
  if ('unresolved' in side)
    return (
      <>
        <State tone="open" shape="?">
          cannot tell
        </State>{' '}
        {side.unresolved.reason}
      </>
    );
  const [fact] = side.facts;
  if (!fact) return null;
  const detail = factDetail(fact);
  const isId = fact.kind === 'app-id' || fact.kind === 'unit-id';
  return (
    <>
      {isId ? <IdText id={fact.value} /> : <code>{fact.value}</code>}
      {detail !== undefined && <span className="soft"> {detail}</span>}
    </>
  );
}

/** How it is known: folded, with the place as its name. */
function Evidence({ side, question }: { side: Side; question: Question }) {
  const all = 'facts' in side ? side.facts : [side.unresolved];
  const different = new Map(all.map((one) => [JSON.stringify([one.place, one.chain]), one]));
  return [...different.values()].map(({ chain, place }, index) => (
    <SourceOnDemand key={index} question={question} place={place}>
      <Chain chain={chain} />
    </SourceOnDemand>
  ));
}
