import { useMutation, useQueryClient } from '@tanstack/react-query';
import { NavLink, useParams, useSearchParams } from 'react-router';
import type { LinkedTree, WiringAnswer } from '../../api/trees.js';
import type { CheckReport, Finding } from '../../core/checks/model.js';
import type { Fact, Survey } from '../../core/survey/model.js';
import { call, type CallError } from '../api.js';
import { Chain, placeText, SourceLines } from '../components/evidence.js';
import { Diff } from '../components/diff.js';
import { Empty, Failure, Loading, ProblemNote, SeverityMark } from '../components/states.js';
import {
  keys,
  useBoard,
  useCheck,
  useSurvey,
  useTitle,
  useTrees,
  useWiring,
  type Question,
} from '../queries.js';
import { platformNames } from './board.js';

type PlatformName = keyof typeof platformNames;
const views = { wiring: 'What it carries', findings: 'What is wrong', edits: 'What would mend it' } as const;

/** One edition: what each variant would ship, what is wrong with it, and the edits that mend it. */
export function EditionPage() {
  const { title = '', platform: named } = useParams();
  const platform: PlatformName = named === 'ios' ? 'ios' : 'android';
  const [search] = useSearchParams();
  const view = (search.get('view') ?? 'wiring') as keyof typeof views;
  const record = useTitle(title);
  const board = useBoard(title);
  const edition = board.data?.editions.find((candidate) => candidate.platform === platform);
  const question: Question | undefined =
    edition?.snapshot && record.data
      ? { snapshot: edition.snapshot, title, version: record.data.version }
      : undefined;
  if (record.status === 'pending' || board.status === 'pending') return <Loading what="the edition" />;
  if (record.status === 'error') return <Failure error={record.error} again={() => void record.refetch()} />;
  if (board.status === 'error') return <Failure error={board.error} again={() => void board.refetch()} />;
  const name = record.data.title.name;
  return (
    <main className="page">
      <h1>
        What would the {platformNames[platform]} build of {name} ship?
      </h1>
      <p className="lede">
        <code>{edition?.identifier ?? 'no identifier in the record'}</code>
        {edition?.tree && <>, as read from {edition.tree}</>} <ReadAgain title={title} />
      </p>
      <nav className="subnav" aria-label="Views">
        {Object.entries(views).map(([key, label]) => (
          <NavLink key={key} to={`?view=${key}`} className={() => (key === view ? 'active' : '')}>
            {label}
          </NavLink>
        ))}
      </nav>
      {question ? <View view={view} platform={platform} question={question} /> : <NoTree title={title} />}
    </main>
  );
}

function View({
  view,
  platform,
  question,
}: {
  view: keyof typeof views;
  platform: PlatformName;
  question: Question;
}) {
  if (view === 'findings') return <FindingsView platform={platform} question={question} />;
  return view === 'edits' ? (
    <EditsView platform={platform} question={question} />
  ) : (
    <WiringView platform={platform} question={question} />
  );
}

function NoTree({ title }: { title: string }) {
  return (
    <Empty>
      <p>No tree of this edition was read yet. In a terminal, on a checkout of it:</p>
      <pre>syndexa check DIR --title {title}</pre>
      <p className="mb-0">
        Or start the service with <code>syndexa serve --root FOLDER</code> and link a folder below it:{' '}
        <code>syndexa title link {title} DIR</code>.
      </p>
    </Empty>
  );
}

function ReadAgain({ title }: { title: string }) {
  const trees = useTrees();
  const client = useQueryClient();
  const linked = trees.data?.find((tree) => tree.title === title);
  const read = useMutation<unknown, CallError>({
    mutationFn: () => call('readTree', { params: { tree: linked?.id ?? '' } }),
    onSuccess: () => client.invalidateQueries({ queryKey: keys.board(title) }),
  });
  if (!linked) return null;
  return (
    <>
      <button
        type="button"
        className="btn btn-sm btn-outline-secondary"
        disabled={read.isPending}
        onClick={() => read.mutate()}
      >
        {read.isPending ? 'Reading…' : '↻ Read the tree again'}
      </button>
      {read.error && <ProblemNote error={read.error} />}
    </>
  );
}

/** Shows an answer when it is there, and says what happens until then. */
function Shown<Data>({
  answer,
  children,
}: {
  answer: { status: string; data?: Data; error: CallError | null; refetch: () => unknown };
  children: (data: Data) => React.ReactNode;
}) {
  if (answer.error) return <ProblemNote error={answer.error} />;
  if (answer.data === undefined) return <p className="soft">Reading…</p>;
  return <>{children(answer.data)}</>;
}

function WiringView({ platform, question }: { platform: PlatformName; question: Question }) {
  return (
    <Shown answer={useSurvey(question)}>
      {(survey) => <Effective survey={survey} platform={platform} />}
    </Shown>
  );
}

const kindNames: Record<Fact['kind'], string> = {
  'app-id': 'app ID',
  'unit-id': 'unit ID',
  identifier: 'identifier',
  'min-sdk': 'minimum SDK',
  'compile-sdk': 'compile SDK',
  'target-sdk': 'target SDK',
  'deployment-target': 'deployment target',
  permission: 'permission',
  dependency: 'dependency',
  'plist-key': 'property-list key',
};

function Effective({ survey, platform }: { survey: Survey; platform: PlatformName }) {
  const editions = survey.editions.filter((edition) => edition.platform === platform);
  if (editions.length === 0)
    return <Empty>The tree that was read builds nothing for {platformNames[platform]}.</Empty>;
  return editions.map(({ module, variants }) => (
    <section key={module} aria-label={module}>
      {variants.map(({ name, stage, stageWhy }) => (
        <VariantTable
          key={name}
          name={name}
          stage={stage}
          why={stageWhy}
          survey={survey}
          platform={platform}
          module={module}
        />
      ))}
    </section>
  ));
}

interface VariantProps {
  name: string;
  stage: string | null;
  why: string;
  survey: Survey;
  platform: PlatformName;
  module: string;
}

function VariantTable({ name, stage, why, survey, platform, module }: VariantProps) {
  const mine = <Item extends { platform: string; module: string; variants: string[] }>(
    items: readonly Item[],
  ) =>
    items.filter(
      (item) => item.platform === platform && item.module === module && item.variants.includes(name),
    );
  const facts = mine(survey.facts).sort((a, b) => order(a.kind) - order(b.kind));
  return (
    <>
      <h2>
        {name} <span className={`state state-${stage ? 'good' : 'open'}`}>{stage ?? 'no stage'}</span>{' '}
        <small className="soft fw-normal">{why}</small>
      </h2>
      <div className="ledger-scroll" style={{ maxHeight: 'none' }}>
        <table className="ledger">
          <thead>
            <tr>
              <th style={{ width: '15%' }}>What</th>
              <th style={{ width: '25%' }}>Value</th>
              <th>Evidence</th>
            </tr>
          </thead>
          <tbody>
            {facts.map((fact) => (
              <tr key={JSON.stringify([fact.kind, fact.value, fact.place, fact.name])}>
                <td>
                  {kindNames[fact.kind]}
                  <div className="soft">{fact.placement ?? fact.network}</div>
                </td>
                <td>
                  <code>{fact.value}</code>
                  {fact.standsIn && <div className="soft">in {fact.standsIn}</div>}
                </td>
                <td>
                  <Chain chain={fact.chain} />
                </td>
              </tr>
            ))}
            {mine(survey.unresolved).map((item) => (
              <tr key={JSON.stringify([item.what, item.place])} className="cell-open">
                <td>
                  <span className="state state-open">
                    <span className="shape">?</span>cannot tell
                  </span>
                </td>
                <td>
                  {item.what}: {item.reason}
                </td>
                <td>
                  <Chain chain={item.chain} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

function order(kind: Fact['kind']): number {
  return Object.keys(kindNames).indexOf(kind);
}

function FindingsView({ platform, question }: { platform: PlatformName; question: Question }) {
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
      <h2>{group}</h2>
      {mine
        .filter(({ rule }) => rule.startsWith(`${group}/`))
        .map((finding) => (
          <FindingCard key={finding.fingerprint} finding={finding} snapshot={snapshot} />
        ))}
    </section>
  ));
}

function FindingCard({ finding, snapshot }: { finding: Finding; snapshot: string }) {
  const { severity, rule, message, mend, variants, place, chain, fix } = finding;
  return (
    <article className={`finding ${severity}`}>
      <header>
        <SeverityMark severity={severity} />
        <strong>{rule}</strong>
        <span className="soft">{variants.join(', ')}</span>
        {place && <span className="place soft">{placeText(place)}</span>}
      </header>
      <p>{message}</p>
      {place && <SourceLines snapshot={snapshot} place={place} />}
      {chain.length > 1 && <Chain chain={chain} />}
      <p className="soft">
        {fix && (
          <span className="state state-good">
            <span className="shape">✔</span>wiring mends it.{' '}
          </span>
        )}
        {mend}
      </p>
    </article>
  );
}

function EditsView({ platform, question }: { platform: PlatformName; question: Question }) {
  const trees = useTrees();
  const linked = trees.data?.find((tree) => tree.title === question.title);
  const same = linked?.snapshot === question.snapshot;
  return (
    <Shown answer={useWiring(question)}>
      {(wiring) => (
        <Edits
          wiring={wiring}
          platform={platform}
          linked={same ? linked : undefined}
          other={linked !== undefined && !same}
          title={question.title}
        />
      )}
    </Shown>
  );
}

function whereTo(linked: LinkedTree | undefined, other: boolean): string {
  if (linked) return `into ${linked.path}: all of them, or none`;
  if (other) return 'The last reading was of another tree. Read the linked tree again to write from here.';
  return 'This tree was sent, not linked, so the edits are written where it lies.';
}

interface EditsProps {
  wiring: WiringAnswer;
  platform: PlatformName;
  /** The linked tree, when it is the one that the edits are for. */
  linked: LinkedTree | undefined;
  /** There is a linked tree, but the last reading was of another one. */
  other: boolean;
  title: string;
}

function Edits({ wiring, platform, linked, other, title }: EditsProps) {
  const client = useQueryClient();
  const apply = useMutation<unknown, CallError>({
    mutationFn: () =>
      call('applyWiring', { params: { tree: linked?.id ?? '' }, body: { wiring: wiring.id } }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: keys.trees });
      await client.invalidateQueries({ queryKey: keys.board(title) });
    },
  });
  const steps = wiring.byHand.filter((step) => step.platform === platform || step.platform === null);
  return (
    <>
      {wiring.edits.length === 0 ? (
        <p className="state state-good">
          <span className="shape">●</span>The tree agrees with the record: there is nothing to write.
        </p>
      ) : (
        <div className="d-flex flex-wrap gap-3 align-items-center mb-3">
          {linked ? (
            <button
              type="button"
              className="btn btn-primary"
              disabled={apply.isPending}
              onClick={() => apply.mutate()}
            >
              {apply.isPending ? 'Writing…' : `Write these ${wiring.edits.length} files`}
            </button>
          ) : (
            <code>syndexa wire DIR --title {title} --write</code>
          )}
          <span className="soft">{whereTo(linked, other)}</span>
          <a
            className="btn btn-sm btn-outline-secondary"
            download={`${title}.patch`}
            href={`data:text/x-diff;charset=utf-8,${encodeURIComponent(wiring.patch)}`}
          >
            Patch file
          </a>
        </div>
      )}
      {apply.error && <ProblemNote error={apply.error} />}
      {steps.length > 0 && (
        <section aria-label="Left to you">
          <h2>Left to you</h2>
          <ul>
            {steps.map(({ what, why, where }) => (
              <li key={`${what} ${why}`}>
                {what} <span className="soft">{why}</span> {where && <code>{where}</code>}
              </li>
            ))}
          </ul>
        </section>
      )}
      {wiring.edits.length > 0 && <h2>The edits</h2>}
      <Diff patch={wiring.patch} edits={wiring.edits} />
    </>
  );
}
