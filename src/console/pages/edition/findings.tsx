import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { CheckReport, Finding } from '../../../core/checks/model.js';
import { Accept } from './accept.js';
import { Chain, placeText, SourceLines } from '../../components/evidence.js';
import type { PlatformName } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { SeverityMark, State } from '../../components/states.js';
import { useCheck, type Question } from '../../queries.js';

/** What is wrong with the edition, by group, each at its place in the source. */
export function FindingsView({ platform, question }: { platform: PlatformName; question: Question }) {
  return (
    <Shown answer={useCheck(question)}>
      {(report) => (
        <Findings report={report} platform={platform} snapshot={question.snapshot} title={question.title} />
      )}
    </Shown>
  );
}

function Findings({
  report,
  platform,
  snapshot,
  title,
}: {
  report: CheckReport;
  platform: PlatformName;
  snapshot: string;
  title: string;
}) {
  const mine = report.findings.filter(
    (finding) => finding.platform === platform || finding.platform === null,
  );
  if (mine.length === 0) {
    return (
      <p>
        <State tone="good" shape="●">
          Nothing is wrong with this edition.
        </State>
      </p>
    );
  }
  const byWiring = mine.filter(({ fix, accepted }) => fix && !isAccepted(accepted));
  const byHand = mine.filter(({ fix, accepted }) => !fix && !isAccepted(accepted));
  const accepted = mine.filter((finding) => isAccepted(finding.accepted));
  return (
    <>
      <Group name="Wiring fixes" findings={byWiring} snapshot={snapshot} title={title}>
        <Link to="?view=edits">See the edits, and write them.</Link>
      </Group>
      <Group name="Left to you" findings={byHand} snapshot={snapshot} title={title} />
      <Group name="Accepted" findings={accepted} snapshot={snapshot} title={title} />
    </>
  );
}

function isAccepted(accepted: Finding['accepted']): boolean {
  return accepted !== undefined && accepted !== null && !accepted.ended;
}

/** Findings that are fixed in the same way, the worst first. */
function Group({
  name,
  findings,
  snapshot,
  title,
  children,
}: {
  name: string;
  findings: readonly Finding[];
  snapshot: string;
  title: string;
  children?: ReactNode;
}) {
  if (findings.length === 0) return null;
  return (
    <section aria-label={name}>
      <h2>
        {name} <span className="soft">{findings.length}</span>
      </h2>
      {children && <p>{children}</p>}
      {findings.map((finding) => (
        <FindingCard key={finding.fingerprint} finding={finding} snapshot={snapshot} title={title} />
      ))}
    </section>
  );
}

function FindingCard({ finding, snapshot, title }: { finding: Finding; snapshot: string; title: string }) {
  const { severity, rule, message, mend, variants, place, chain, fix, accepted } = finding;
  return (
    <article className={`finding ${severity}`}>
      <header>
        <SeverityMark severity={severity} />
        <strong>
          <Link to={`/rules/${rule}`}>{rule}</Link>
        </strong>
        <span className="soft">{variants.join(', ')}</span>
        {place && <span className="place soft">{placeText(place)}</span>}
      </header>
      <p>{message}</p>
      {accepted && (
        <p>
          <span className="shape">◇</span> {accepted.ended ? 'Was accepted' : 'Accepted'} until{' '}
          {accepted.until} by {accepted.who}: {accepted.reason}
        </p>
      )}
      {place && <SourceLines snapshot={snapshot} place={place} />}
      {chain.length > 1 && <Chain chain={chain} />}
      <p className="soft">
        {fix ? (
          <State tone="good" shape="✔">
            wiring fixes it.
          </State>
        ) : (
          mend
        )}
      </p>
      <Accept title={title} finding={finding} />
    </article>
  );
}
