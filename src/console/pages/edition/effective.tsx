import { kindNames } from '../../../core/facts/kind-names.js';
import type { Fact, Survey } from '../../../core/facts/model.js';
import { Chain, LinesOnDemand } from '../../components/evidence.js';
import { platformNames, type PlatformName } from '../../components/platform-names.js';
import { Shown } from '../../components/shown.js';
import { Empty } from '../../components/states.js';
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
                  {fact.standsIn && (
                    <div className="soft">
                      {/^(not in|no) /.test(fact.standsIn) ? fact.standsIn : `in ${fact.standsIn}`}
                    </div>
                  )}
                </td>
                <td>
                  <Chain chain={fact.chain} />
                  <LinesOnDemand snapshot={snapshot} place={fact.place} />
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
