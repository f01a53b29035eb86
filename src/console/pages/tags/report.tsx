import type { ReactNode } from 'react';
import { counted } from '../../../core/text/counted.js';
import type { TagReport } from '../../../api/tags.js';
import { errorCodes, type ErrorCode } from '../../../core/formats/vast/error-codes.js';
import { FaultList, placed } from '../../components/fault-list.js';
import { LedgerTable } from '../../components/ledger-table.js';
import { State } from '../../components/states.js';

/** What a tag shows on a device, and what is wrong with it. */
export function TagReportView({
  report: { documents, ads, deadEnds, insecure, macros },
}: {
  report: TagReport;
}) {
  return (
    <section aria-label="What the tag shows" className="mt-3">
      <h2>Documents</h2>
      <LedgerTable heads={['Document', 'What it is', 'What is wrong']}>
        {documents.map((document, index) => (
          <DocumentRow key={index} document={document} />
        ))}
      </LedgerTable>
      <h2>Ads</h2>
      {ads.length === 0 && deadEnds.length === 0 && (
        <State tone="bad" shape="■">
          no ad
        </State>
      )}
      {ads.map((ad, index) => (
        <Ad key={index} ad={ad} />
      ))}
      {deadEnds.map(({ code, why, fix, step, place }, index) => (
        <p key={index}>
          <State tone="bad" shape="■">
            no ad
          </State>{' '}
          document {step + 1}
          {place && `, line ${place.line}`}: {why} {fix}{' '}
          <span className="soft">
            error {code}: {errorCodes[code as ErrorCode]}
          </span>
        </p>
      ))}
      <Notes insecure={insecure} macros={macros} />
    </section>
  );
}

/** What a platform blocks or sends as it is. */
function Notes({ insecure, macros }: Pick<TagReport, 'insecure' | 'macros'>) {
  return (
    <>
      {insecure.length > 0 && (
        <p>
          <State tone="open" shape="▲">
            not secure
          </State>{' '}
          {counted(insecure.length, 'address', 'addresses')} without https (
          {[...new Set(insecure.map(({ what }) => what))].join(', ')}): platforms block these unless the app
          allows them.
        </p>
      )}
      {macros.unfilled.length > 0 && (
        <p>
          <State tone="open" shape="▲">
            unknown macros
          </State>{' '}
          {[...new Set(macros.unfilled.map(({ macro, what }) => `${macro} (${what})`))].join(', ')}: these are
          not VAST macros, so players send them unchanged.
        </p>
      )}
      {macros.withoutValue.length > 0 && (
        <p className="soft">
          Sent as -1, because a player in an app has no value for them: {macros.withoutValue.join(', ')}
        </p>
      )}
    </>
  );
}

function DocumentRow({ document }: { document: TagReport['documents'][number] }) {
  const { url, depth, version, redirects, ms, failed, ads, problems } = document;
  const said = [
    failed === null
      ? version === null
        ? 'no VAST'
        : `VAST ${version}, ${counted(ads, 'ad')}`
      : failed.replace('-', ' '),
    ...(redirects > 0 ? [`${counted(redirects, 'redirect')}`] : []),
    ...(ms === null ? [] : [`${ms} ms`]),
  ];
  return (
    <tr>
      <td className="text-break" style={{ paddingLeft: `${0.5 + depth}rem` }}>
        {depth > 0 && <span aria-hidden="true">└ </span>}
        <code>{url}</code>
      </td>
      <td>{said.join(', ')}</td>
      <td data-label="What is wrong">
        {problems.length === 0 && <span className="soft">nothing</span>}
        <FaultList
          faults={problems.map(({ section, ...problem }) => ({
            ...placed(problem),
            source: section === undefined ? undefined : `VAST 4.2, section ${section}`,
          }))}
        />
      </td>
    </tr>
  );
}

export function seconds(milliseconds: number): string {
  return `${milliseconds / 1000} s`;
}

/** The labelled lines that describe an ad. */
function linesOf(ad: TagReport['ads'][number]): [string, ReactNode][] {
  const { choice, duration, skip, impressions, quartiles, clickThrough } = ad;
  const { file } = choice;
  return [
    [
      'plays',
      file ? (
        <>
          <code className="text-break">{file.url}</code>{' '}
          <span className="soft">
            {file.width}×{file.height}
            {file.bitrate !== undefined && `, ${file.bitrate} kbit/s`}, {file.type}: {choice.why}
          </span>
        </>
      ) : (
        <State tone="bad" shape="■">
          nothing: {choice.why}
        </State>
      ),
    ],
    ...choice.passed.map(({ url, why }): [string, ReactNode] => [
      'not',
      <>
        <code className="text-break">{url}</code> <span className="soft">{why}</span>
      </>,
    ]),
    [
      'length',
      `${duration === null ? 'cannot be read' : seconds(duration)}; ${skip === null ? 'it cannot be skipped' : `it can be skipped after ${seconds(skip)}`}`,
    ],
    [
      'calls',
      [
        `${counted(impressions, 'impression')}`,
        ...Object.entries(quartiles).map(([event, count]) => `${event} ${count}`),
      ].join(', '),
    ],
    ['click', clickThrough === null ? 'no ClickThrough' : <code className="text-break">{clickThrough}</code>],
    ...ad.companions.map(({ width, height, resource }): [string, ReactNode] => [
      'beside it',
      `${width}×${height}  ${resource === null ? 'holds nothing' : resource.kind === 'html' ? 'HTML' : resource.value}`,
    ]),
    ...ad.verifications.map(({ vendor, scripts }): [string, ReactNode] => [
      'measured by',
      `${vendor || 'nobody named'} ${scripts.join(' ')}`,
    ]),
  ];
}

function Ad({ ad }: { ad: TagReport['ads'][number] }) {
  const { id, title, systems } = ad;
  return (
    <article className="change" aria-label={title || id || 'Ad'}>
      <header>
        <strong>{title || id || 'without a title'}</strong>
        <span className="soft">{systems.filter((one) => one !== '').join(' → ')}</span>
      </header>
      <dl className="pairs">
        {linesOf(ad).map(([name, value], index) => (
          <div key={index}>
            <dt>{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
    </article>
  );
}
