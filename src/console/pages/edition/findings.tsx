import type { CheckReport, Finding } from '../../../core/checks/model.js';
import { Chain, placeText, SourceLines } from '../../components/evidence.js';
import type { PlatformName } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { SeverityMark } from '../../components/states.js';
import { useCheck, type Question } from '../../queries.js';

/** What is wrong with the edition, by group, each at its place in the source. */
export function FindingsView({ platform, question }: { platform: PlatformName; question: Question }) {
  return (
    <Shown answer={useCheck(question)}>
      {(report) => <Findings report={report} platform={platform} snapshot={question.snapshot} />}
    </Shown>
  );
}

function Findings({
  report,
  platform,
  snapshot,
}: {
  report: CheckReport;
  platform: PlatformName;
  snapshot: string;
}) {
  const mine = report.findings.filter(
    (finding) => finding.platform === platform || finding.platform === null,
  );
  if (mine.length === 0) {
    return (
      <p className="state state-good">
        <span className="shape">●</span>Nothing is wrong with this edition.
      </p>
    );
  }
  const groups = [...new Set(mine.map(({ rule }) => rule.split('/')[0] ?? rule))];
  return groups.map((group) => (
    <section key={group} aria-label={group}>
      <h2>
        {group} <span className="soft">{inGroup(mine, group).length}</span>
      </h2>
      {inGroup(mine, group).map((finding) => (
        <FindingCard key={finding.fingerprint} finding={finding} snapshot={snapshot} />
      ))}
    </section>
  ));
}

function inGroup(findings: readonly Finding[], group: string): Finding[] {
  return findings.filter(({ rule }) => rule.startsWith(`${group}/`));
}

function FindingCard({ finding, snapshot }: { finding: Finding; snapshot: string }) {
  const { severity, rule, message, mend, variants, place, chain, fix, accepted } = finding;
  return (
    <article className={`finding ${severity}`}>
      <header>
        <SeverityMark severity={severity} />
        <strong>{rule}</strong>
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
          <span className="state state-good">
            <span className="shape">✔</span>wiring fixes it.
          </span>
        ) : (
          mend
        )}
      </p>
    </article>
  );
}
