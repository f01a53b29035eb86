import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { CheckReport, Finding } from '../../../core/checks/model.js';
import { Accept } from './accept.js';
import { Acceptances } from './acceptances.js';
import { ChooseEditor, EditorLink } from '../../components/editor-link.js';
import { Chain, placeText, SourceLines } from '../../components/evidence.js';
import type { Platform } from '../../../core/words/words.js';
import { Shown } from '../../components/shown.js';
import { useMore } from '../../components/use-more.js';
import { JustThis } from './just-this.js';
import { FindingControls, useFindingFilter } from './finding-controls.js';
import { useFindingKeys } from './use-finding-keys.js';
import { Empty, SeverityMark, State } from '../../components/states.js';
import { useCheck, type Question } from '../../tree-queries.js';

/** What is wrong with the edition, by group, each at its place in the source. */
export function FindingsView({ platform, question }: { platform: Platform; question: Question }) {
  return (
    <Shown answer={useCheck(question)}>
      {(report) => <Findings report={report} platform={platform} question={question} />}
    </Shown>
  );
}

function Findings({
  report,
  platform,
  question,
}: {
  report: CheckReport;
  platform: Platform;
  question: Question;
}) {
  useFindingKeys();
  const filter = useFindingFilter();
  const all = report.findings.filter((finding) => finding.platform === platform || finding.platform === null);
  const mine = all.filter(filter.fits);
  if (all.length === 0) {
    return (
      <>
        <p>
          <State tone="good" shape="●">
            Nothing is wrong with this edition.
          </State>
        </p>
        <Acceptances title={question.title} />
      </>
    );
  }
  const byWiring = mine.filter(({ fix, accepted }) => fix && !isAccepted(accepted));
  const byHand = mine.filter(({ fix, accepted }) => !fix && !isAccepted(accepted));
  const accepted = mine.filter((finding) => isAccepted(finding.accepted));
  return (
    <>
      <FindingControls findings={all} filter={filter} />
      {mine.length === 0 && <Empty>No finding matches.</Empty>}
      <p className="soft">
        <kbd>j</kbd> and <kbd>k</kbd> go to the next finding and back.
        <ChooseEditor />
      </p>
      <Group name="Wiring fixes" findings={byWiring} question={question}>
        <Link to="?view=edits">See the edits, and write them.</Link>
      </Group>
      <Group name="Left to you" findings={byHand} question={question} />
      <Group name="Accepted" findings={accepted} question={question} />
      <Acceptances title={question.title} />
    </>
  );
}

function isAccepted(accepted: Finding['accepted']): boolean {
  return accepted !== undefined && accepted !== null && !accepted.ended;
}

/** Findings of a group that are drawn at first: each reads the lines around its place. */
const findingsAtOnce = 50;

/** Findings that are fixed in the same way, the worst first. */
function Group({
  name,
  findings,
  question,
  children,
}: {
  name: string;
  findings: readonly Finding[];
  question: Question;
  children?: ReactNode;
}) {
  const [some, more] = useMore(findings, findingsAtOnce);
  if (findings.length === 0) return null;
  return (
    <section aria-label={name}>
      <h2>
        {name} <span className="soft">{findings.length}</span>
      </h2>
      {children && <p>{children}</p>}
      {some.map((finding) => (
        <FindingCard key={finding.fingerprint} finding={finding} question={question} />
      ))}
      {more}
    </section>
  );
}

function FindingCard({ finding, question }: { finding: Finding; question: Question }) {
  const { severity, rule, message, mend, variants, place, chain, fix, accepted, network, platform } = finding;
  return (
    <article className={`finding ${severity}`} tabIndex={-1} aria-label={`${rule}: ${message}`}>
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
      {place && <SourceLines question={question} place={place} />}
      {place && <EditorLink question={question} place={place} />}
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
      {fix && (
        <JustThis
          question={question}
          pick={(group) =>
            group.rules.includes(rule) &&
            (group.network === null || network === null || group.network === network) &&
            (platform === null || group.platform === platform)
          }
          name={message}
        />
      )}
      <Accept title={question.title} finding={finding} />
    </article>
  );
}
