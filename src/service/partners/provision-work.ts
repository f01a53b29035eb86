import { entryAt, valueAt } from '../../core/text/own-values.js';
import { createHash } from 'node:crypto';
import type { ProvisionAnswer, ProvisionRequest } from '../../api/inventory.js';
import type { InventoryUnit, InventoryApp } from '../../core/inventory/model.js';
import { patternFault, usualPattern } from '../../core/inventory/names.js';
import type { Profile } from '../../core/network/model.js';
import {
  planProvision,
  type CreateApp,
  type CreateUnit,
  type ProvisionStep,
} from '../../core/provision/plan.js';
import { usesNetwork } from '../../core/roster/expected.js';
import type { Title } from '../../core/roster/model.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import type { TitleWork } from '../title-work.js';
import type { Writer } from '../store/roster-store.js';
import type { OnProgress } from '../../core/text/progress.js';
import type { PartnerApi, ReadList } from './partner-api.js';

interface NetworkPlan {
  profile: Profile;
  api: PartnerApi;
  apps: ReadList<InventoryApp>;
  units: ReadList<InventoryUnit>;
  steps: ProvisionStep[];
}

type Done = ProvisionAnswer['done'][number];

/** Makes networks and roster agree. Every step is written down as soon as it is done, so a run that is cut goes on. */
export class ProvisionWork {
  constructor(
    private readonly context: ServiceContext,
    private readonly roster: TitleWork,
  ) {}

  async provision(
    titleId: string,
    request: ProvisionRequest,
    writer: Writer,
    progress: OnProgress,
  ): Promise<ProvisionAnswer> {
    const { title } = this.context.roster.get(titleId);
    const names = request.names ?? usualPattern;
    const fault = patternFault(names);
    if (fault !== null)
      throw new ServiceError('invalid', `The pattern ${names} cannot be used. ${fault}`, {
        fix: `The default is ${usualPattern}.`,
      });
    const plans: NetworkPlan[] = [];
    for (const profile of this.profilesFor(title, request.networks)) {
      const api = this.context.partners.api(profile);
      const apps = await api.apps(progress);
      const units = await api.units(progress);
      const steps = planProvision({
        id: titleId,
        title,
        profile,
        apps: apps.items,
        units: units.items,
        pattern: names,
        ...(request.platforms ? { platforms: request.platforms } : {}),
      });
      plans.push({ profile, api, apps, units, steps });
    }
    const plan = digestOf([plans.map(({ steps }) => steps), request.settle ?? null]);
    const answer: ProvisionAnswer = {
      title: titleId,
      plan,
      networks: plans.map(({ profile, steps, apps, units }) => ({
        network: profile.id,
        name: profile.name,
        steps,
        odd: [...apps.odd, ...units.odd],
      })),
      applied: false,
      done: [],
    };
    if (request.dryRun) return answer;
    if (request.plan !== undefined && request.plan !== plan)
      throw new ServiceError('stale', 'The plan has changed, because the network or the roster did.', {
        fix: 'Review the new plan, and confirm it.',
      });
    const total = plans.flatMap(({ steps }) => steps).filter(({ do: what }) => what !== 'by-hand').length;
    for (const network of plans) {
      const run = new NetworkRun(this.context, this.roster, titleId, network, writer);
      for (const step of network.steps) {
        if (step.do === 'by-hand') continue;
        const done = await run.take(step, request.settle);
        if (done) answer.done.push(done);
        progress({ doing: `provisioning ${network.profile.name}`, done: answer.done.length, total });
      }
      run.keep();
    }
    return { ...answer, applied: true };
  }

  /** The networks of a title that can be asked; one that is named and cannot is an error. */
  private profilesFor(title: Title, named: readonly string[] | undefined): Profile[] {
    const used = this.context.profiles.profiles().filter(({ id }) => usesNetwork(title, id));
    if (named === undefined) {
      const able = used.filter(({ inventory }) => inventory?.http);
      if (able.length > 0) return able;
      throw new ServiceError('invalid', 'No network of the title has an inventory to query.', {
        fix: 'Add networks to the placements: syndexa placement set TITLE PLACEMENT --network NETWORK.',
      });
    }
    return named.map((id) => {
      const { profile } = this.context.profiles.get(id);
      if (used.includes(profile)) return profile;
      throw new ServiceError('invalid', `The title does not use ${profile.name}.`, {
        fix: `Add it to a placement: syndexa placement set TITLE PLACEMENT --network ${id}.`,
      });
    });
  }
}

/** One network being provisioned. */
class NetworkRun {
  private readonly apps = new Map<string, InventoryApp>();
  private readonly units: Map<string, InventoryUnit>;
  private changed = false;

  constructor(
    private readonly context: ServiceContext,
    private readonly roster: TitleWork,
    private readonly titleId: string,
    private readonly plan: NetworkPlan,
    private readonly writer: Writer,
  ) {
    this.units = new Map(plan.units.items.map((unit) => [unit.id, unit]));
  }

  /** Performs one step, and records its result; null if there was nothing to do. */
  async take(
    step: Exclude<ProvisionStep, { do: 'by-hand' }>,
    settle: ProvisionRequest['settle'],
  ): Promise<Done | null> {
    const { network, platform } = step;
    const placement = 'placement' in step ? step.placement : null;
    const done = (what: Done['what'], id: string): Done => ({ network, platform, placement, what, id });
    switch (step.do) {
      case 'create-app': {
        const app = await this.plan.api.createApp(step, this.keyFor(step));
        this.keepApp(app, platform);
        return done('app created', app.id);
      }
      case 'take-app':
        this.apps.set(platform, step.app);
        if (!step.isNew) return null;
        this.keepApp(step.app, platform);
        return done('app taken over', step.app.id);
      case 'create-unit': {
        const app = this.apps.get(platform)?.id ?? null;
        const unit = await this.plan.api.createUnit(step, app, this.keyFor(step));
        this.keepUnit(unit, step.placement, platform);
        return done('unit created', unit.id);
      }
      case 'take-unit':
        if (!step.isNew) return null;
        this.keepUnit(step.unit, step.placement, platform);
        return done('unit taken over', step.unit.id);
      case 'settle':
        if (settle === undefined) return null;
        if (settle === 'roster') await this.settleThere(step);
        else this.settleHere(step);
        return done('setting changed', step.unit.id);
    }
  }

  /** Keeps what is known now of the network's list. */
  keep(): void {
    const { profile, apps } = this.plan;
    const fresh = [...this.apps.values()].filter(({ id }) => !apps.items.some((app) => app.id === id));
    this.context.inventories.save({
      network: profile.id,
      source: 'http',
      readAt: this.context.now().toISOString(),
      apps: [...apps.items, ...fresh],
      units: [...this.units.values()],
    });
    if (this.changed) this.context.events.tell({ kind: 'title', title: this.titleId });
  }

  private keepApp(app: InventoryApp, platform: CreateApp['platform']): void {
    this.apps.set(platform, app);
    if (!this.plan.profile.ids.app) return;
    this.write((title) => {
      const stages = (entryAt(title.networks, this.plan.profile.id, () => ({}))[platform] ??= {});
      stages.production = { ...stages.production, app: app.id };
    });
  }

  private keepUnit(unit: InventoryUnit, placement: string, platform: CreateUnit['platform']): void {
    this.units.set(unit.id, unit);
    this.write((title) => {
      const units = valueAt(title.placements, placement)?.units;
      if (units) (entryAt(units, this.plan.profile.id, () => ({}))[platform] ??= {}).production = unit.id;
    });
  }

  private async settleThere({
    unit,
    setting,
    roster,
  }: Extract<ProvisionStep, { do: 'settle' }>): Promise<void> {
    const current = this.units.get(unit.id) ?? unit;
    const changed = await this.plan.api.changeSettings(current, { ...current.settings, [setting]: roster });
    this.units.set(unit.id, changed);
  }

  private settleHere({ placement, setting, partner }: Extract<ProvisionStep, { do: 'settle' }>): void {
    this.write((title) => {
      const spot = valueAt(title.placements, placement);
      if (spot) spot.settings = { ...spot.settings, [setting]: partner };
    });
  }

  private write(change: (title: Title) => void): void {
    const before = this.context.roster.get(this.titleId);
    const next = structuredClone(before.title);
    change(next);
    this.roster.save(this.titleId, next, before, [before.version], this.writer);
    this.changed = true;
  }

  /** The same for the same wish, so that a call that was cut is not made twice; another once its unit was removed. */
  private keyFor(step: CreateApp | CreateUnit): string {
    const earlier = this.plan.units.items.filter(({ name }) => name === step.name).length;
    return digestOf([this.titleId, step, earlier]);
  }
}

/** A short name for a plan or a wish: the same content, the same name. */
export function digestOf(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value)).digest('hex').slice(0, 32);
}
