import type { RehearsalRequest } from '../../api/rehearsals.js';
import { shippedScenarios } from '../../api/shipped-scenarios.js';
import type { FactOf } from '../../core/facts/model.js';
import type { App } from '../../core/rehearsal/app/model.js';
import { rehearseWith } from '../../core/rehearsal/device/rehearse.js';
import { LongSessionError } from '../../core/rehearsal/device/session.js';
import { outcomes } from '../../core/rehearsal/outcome.js';
import {
  isRight,
  placementsOf,
  type RehearsalReport,
  type RehearsalRun,
} from '../../core/rehearsal/report.js';
import type { Scenario } from '../../core/rehearsal/scenario/model.js';
import { readScenario } from '../../core/rehearsal/scenario/read.js';
import { heldIds } from '../../core/roster/validate.js';
import type { OnProgress } from '../../core/text/progress.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { valueAt } from '../../core/text/own-values.js';
import { platformNames } from '../../core/words/names.js';
import type { ServiceContext } from '../context.js';
import { faultsOf, ServiceError } from '../errors.js';
import type { TreeWork } from '../tree-work.js';
import { findPartner, type RehearsalPartner } from './find-partner.js';
import { PartnerDesk } from './partner-desk.js';

/** More events or exchanges of one variant than this are not listed. */
const maxListed = 20_000;

interface Asked {
  snapshot: string;
  request: RehearsalRequest;
  signal?: AbortSignal | undefined;
  progress?: OnProgress | undefined;
}

interface Ran {
  run: RehearsalRun;
  facts: FactOf<'rehearsed'>[];
}

/** Rehearses the ad calls of trees against the simulated partner. */
export class RehearsalWork {
  constructor(
    private readonly context: ServiceContext,
    private readonly trees: TreeWork,
  ) {}

  scenarios = () =>
    shippedScenarios().map(({ id, scenario: { name, about }, source }) => ({ id, name, about, source }));

  async rehearse({ snapshot, request, signal, progress }: Asked): Promise<RehearsalReport> {
    const scenario = scenarioOf(request);
    const { variants, platforms, placements } = request;
    const asked = { snapshot, title: request.title, signal, progress };
    const { title, apps } = await this.trees.appsToRehearse(asked, { variants, platforms, placements });
    this.demandKnown(title, request, apps);
    const partner = await this.partnerFor(title, request.seed);
    try {
      const ran: Ran[] = [];
      for (const app of apps) {
        const doing = `rehearsing ${app.variant} on ${app.platform}`;
        progress?.({ doing, done: ran.length, total: apps.length });
        ran.push(await this.one(app, { scenario, request, partner, signal }));
      }
      const facts = ran.flatMap((one) => one.facts);
      const findings = await this.trees.rehearsalFindings({ ...asked, title }, facts);
      const runs = ran.map(({ run }) => run);
      const isShown = runs.every((run) => run.placements.every(({ verdict }) => isRight(verdict, run.stage)));
      const clean = runs.length > 0 && isShown && findings.length === 0;
      const report: RehearsalReport = {
        title,
        scenario: scenario.name,
        seed: request.seed,
        device: scenario.device,
        partner: partner.is,
        runs,
        findings,
        clean,
      };
      if (isWhole(request)) this.keep(snapshot, report);
      return report;
    } finally {
      await partner.close();
    }
  }

  private async one(
    app: App,
    {
      scenario,
      request: { seed, trace: isTraced },
      partner,
      signal,
    }: {
      scenario: Scenario;
      request: RehearsalRequest;
      partner: RehearsalPartner;
      signal?: AbortSignal | undefined;
    },
  ): Promise<Ran> {
    const desk = new PartnerDesk({
      base: partner.base,
      app,
      profiles: this.context.profiles.profiles(),
      pushCredential: (network) => partner.push.get(network) ?? this.pushCredential(app, network, partner),
      signal,
    });
    const { trace } = await bounded(
      rehearseWith({ app, scenario, seed }, (question) => desk.answer(question)),
    );
    const facts = outcomes(app, scenario, trace);
    const { platform, module, variant, stage } = app;
    const run: RehearsalRun = { platform, module, variant, stage, placements: placementsOf(app, facts) };
    if (!isTraced) return { run, facts };
    const cut = Math.max(trace.length - maxListed, 0) + Math.max(desk.exchanges.length - maxListed, 0);
    return {
      run: {
        ...run,
        trace: trace.slice(0, maxListed),
        exchanges: desk.exchanges.slice(0, maxListed),
        ...(cut > 0 ? { cut } : {}),
      },
      facts,
    };
  }

  /** The record's push credential goes to a partner that runs only if its host was approved for it. */
  private pushCredential(app: App, network: string, { is, base }: RehearsalPartner): string | undefined {
    const reference = this.pushReference(app.title, network);
    const secret = reference === undefined ? undefined : this.context.secrets.find(reference);
    if (!secret || is === 'started') return undefined;
    const { hostname, port } = new URL(base);
    const isNamed = this.context.secrets
      .hosts(secret.name)
      .some((host) => host.host === hostname && host.port === Number(port));
    return isNamed ? secret.reveal() : undefined;
  }

  private pushReference(title: string, network: string): string | undefined {
    const { profile } = this.context.profiles.get(network);
    const [name] =
      Object.entries(profile.credentials).find(([, { formats }]) => formats?.includes('notification')) ?? [];
    if (name === undefined) return undefined;
    const enrolment = valueAt(this.context.roster.get(title).title.networks, network);
    const own = platformNames.flatMap(
      (platform) => valueAt(enrolment?.[platform]?.production?.credentials, name) ?? [],
    );
    return own[0] ?? valueAt(valueAt(this.context.roster.publisher()?.credentials, network), name);
  }

  private partnerFor(id: string, seed: number): Promise<RehearsalPartner> {
    const { home, roster, profiles, inventories, partners, secrets } = this.context;
    const { title } = roster.get(id);
    return findPartner(
      { home, address: partners.simulated(), seed },
      {
        title,
        profiles: profiles.profiles(),
        inventories: inventories.about(heldIds(title).map((held) => held.id)),
        holdsPush: (network) => {
          const reference = this.pushReference(id, network);
          return reference !== undefined && secrets.find(reference) !== undefined;
        },
        now: this.context.now().toISOString(),
      },
    );
  }

  /** Requested names must exist: a rehearsal of nothing must not pass. */
  private demandKnown(
    id: string,
    { placements = [], variants = [], platforms = [] }: RehearsalRequest,
    apps: readonly App[],
  ): void {
    const { title } = this.context.roster.get(id);
    const known = Object.keys(title.placements);
    const unknown = placements.filter((name) => !known.includes(name));
    if (unknown.length > 0)
      throw new ServiceError('invalid', `${id} has no placement ${unknown.join(', ')}.`, {
        fix: known.length === 0 ? `Add one: syndexa placement add ${id}.` : `It has ${known.join(', ')}.`,
      });
    const missing = variants.filter((name) => !apps.some(({ variant }) => variant === name));
    if (missing.length > 0)
      throw new ServiceError('invalid', `The tree has no variant ${missing.join(', ')} with a stage.`, {
        fix: 'Name one that syndexa survey shows, and give it a stage: syndexa title set.',
      });
    if (apps.length > 0) return;
    const on =
      platforms.length > 0 ? ` for ${platforms.map((one) => platformLabels[one]).join(' and ')}` : '';
    throw new ServiceError('invalid', `The tree has no variant of ${id}${on} that has a stage.`, {
      fix: 'Name the build types and configurations of each stage: syndexa title set.',
    });
  }

  private keep(snapshot: string, { title, scenario, runs, findings }: RehearsalReport): void {
    const at = this.context.now().toISOString();
    for (const platform of platformNames) {
      const mine = runs.filter((run) => run.platform === platform);
      if (mine.length === 0) continue;
      const found = findings
        .filter((finding) => finding.platform === platform || finding.platform === null)
        .map(({ rule, network }) => ({ rule, network }));
      const plain = mine.map(({ trace: _trace, exchanges: _exchanges, cut: _cut, ...run }) => run);
      this.context.steps.saveRehearsal(title, platform, { at, scenario, snapshot, runs: plain, found });
    }
    this.context.events.tell({ kind: 'title', title });
  }
}

/** Names a session that is too long as a fault of what was asked. */
async function bounded<Result>(work: Promise<Result>): Promise<Result> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof LongSessionError)) throw error;
    throw new ServiceError('invalid', error.message, {
      fix: 'Repeat less in the scenario, or rehearse fewer placements.',
      cause: error,
    });
  }
}

/** Whether a rehearsal covers the whole edition, without requested faults. */
const isWhole = ({ offline, noFill, slow, placements, variants }: RehearsalRequest): boolean =>
  !offline && !noFill && !slow && !placements && !variants;

/** The requested scenario, with the requested faults. */
function scenarioOf({ scenario: wanted, offline, noFill, slow }: RehearsalRequest): Scenario {
  const scenario = 'name' in wanted ? shipped(wanted.name) : read(wanted.document);
  return {
    ...scenario,
    network: {
      ...scenario.network,
      ...(slow ? { latency: '12s' } : {}),
      ...(noFill ? { fill: 'none' as const } : {}),
    },
    steps: offline
      ? [
          { do: 'offline', after: '0' },
          ...scenario.steps
            .filter((step) => step.do !== 'offline' && step.do !== 'online')
            .map(withoutConnection),
        ]
      : scenario.steps,
  };
}

const withoutConnection = (step: Scenario['steps'][number]): Scenario['steps'][number] =>
  step.do === 'visit'
    ? { ...step, each: step.each.filter((action) => action.do !== 'offline' && action.do !== 'online') }
    : step;

function shipped(name: string): Scenario {
  const all = shippedScenarios();
  const found = all.find(({ id }) => id === name);
  if (found) return found.scenario;
  throw new ServiceError('invalid', `There is no scenario ${name}.`, {
    fix: `There are ${all.map(({ id }) => id).join(', ')}; or pass a file.`,
  });
}

function read(document: string): Scenario {
  const { scenario, problems } = readScenario(document);
  if (scenario) return scenario;
  throw new ServiceError('invalid', 'The scenario cannot be rehearsed.', {
    errors: faultsOf(problems),
    fix: 'Correct it; docs/schemas/scenario.schema.json describes it.',
  });
}
