import { byKind, factDetail, identityOf, labelOf } from '../../../core/facts/show.js';
import type { Fact, Survey } from '../../../core/facts/model.js';
import { Chain, LinesOnDemand } from '../../components/evidence.js';
import { platformNames, type PlatformName } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { Empty, State } from '../../components/states.js';
import { useSurvey, type Question } from '../../queries.js';

/** What each variant would carry, with the chain of evidence. */
export function WiringView({ platform, question }: { platform: PlatformName; question: Question }) {
  return (
    <Shown answer={useSurvey(question)}>
      {(survey) => <Effective survey={survey} platform={platform} snapshot={question.snapshot} />}
    </Shown>
  );
}

function Effective({
  survey,
  platform,
  snapshot,
}: {
  survey: Survey;
  platform: PlatformName;
  snapshot: string;
}) {
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
          snapshot={snapshot}
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
  snapshot: string;
}

function VariantTable({ name, stage, why, survey, platform, module, snapshot }: VariantProps) {
  const mine = <Item extends { platform: string; module: string; variants: string[] }>(
    items: readonly Item[],
  ) =>
    items.filter(
      (item) => item.platform === platform && item.module === module && item.variants.includes(name),
    );
  const facts = mine(survey.facts).sort(byKind);
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
              <FactRow
                key={JSON.stringify([identityOf(fact), fact.value, fact.place])}
                fact={fact}
                snapshot={snapshot}
              />
            ))}
            {mine(survey.unresolved).map((item) => (
              <UnresolvedRow key={JSON.stringify([item.what, item.place])} item={item} />
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

function FactRow({ fact, snapshot }: { fact: Fact; snapshot: string }) {
  const { kind, value, placement, network, chain, place } = fact;
  const detail = factDetail(fact);
  return (
    <tr>
      <td>
        {labelOf(kind)}
        <div className="soft">{placement ?? network}</div>
      </td>
      <td>
        <code>{value}</code>
        {detail !== undefined && <div className="soft">{detail}</div>}
      </td>
      <td>
        <Chain chain={chain} />
        <LinesOnDemand snapshot={snapshot} place={place} />
      </td>
    </tr>
  );
}

function UnresolvedRow({ item: { what, reason, chain } }: { item: Survey['unresolved'][number] }) {
  return (
    <tr className="cell-open">
      <td>
        <State tone="open" shape="?">
          cannot tell
        </State>
      </td>
      <td>
        {what}: {reason}
      </td>
      <td>
        <Chain chain={chain} />
      </td>
    </tr>
  );
}
