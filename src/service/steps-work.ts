import { platformLabels } from '../core/words/platform-labels.js';
import { valueAt } from '../core/text/own-values.js';
import { profileFor } from '../core/network/for-stack.js';
import * as z from 'zod';
import { type Profile } from '../core/network/model.js';
import { platforms, type Platform } from '../core/words/words.js';
import { expectedIds, usesNetwork } from '../core/roster/expected.js';
import { compareAppAds, neededRecords } from '../core/roster/app-ads-needs.js';
import type { StepContext, Steps, StoreListing } from '../core/steps/model.js';
import { stepsOf } from '../core/steps/steps.js';
import { definitions } from '../core/steps/definitions/index.js';
import type { ServiceContext } from './context.js';
import type { HistoryWork } from './tally/history-work.js';
import { lastRehearsals } from './rehearsals/last.js';
import { ServiceError } from './errors.js';

const LookUpAnswer = z.object({
  listed: z.boolean(),
  name: z.string().nullable().optional(),
  site: z.string().nullable().optional(),
});

/** The ordered steps of titles, and the look-ups that some of them are judged by. */
export class StepsWork {
  constructor(
    private readonly context: ServiceContext,
    private readonly history: HistoryWork,
  ) {}

  steps(id: string): Steps {
    const { title } = this.context.roster.get(id);
    const used = this.context.profiles.profiles().filter((profile) => usesNetwork(title, profile.id));
    const history = this.history.of(id);
    const tally = history && { history, findings: this.history.findings(id, history) };
    const steps = platforms
      .filter((platform) => title.editions[platform])
      .flatMap((platform) => {
        const ticks = this.context.steps.ticksOf(id, platform);
        const contexts = used
          .filter((profile) => profile[platform])
          .map((profile) => this.contextFor(id, platform, profile, tally));
        return stepsOf(contexts, (step, network) => {
          const found = ticks.find((tick) => tick.step === step && tick.network === network);
          return found && { who: found.who, at: found.at, note: found.note };
        });
      });
    return { title: id, name: title.name, steps };
  }

  /** Says that a step is done, or takes it back. What can be seen is not for saying. */
  tick(
    id: string,
    wanted: { step: string; platform: Platform; network: string | null; note: string | null; done: boolean },
    who: string,
  ): Steps {
    const { step: name, platform, network, note, done } = wanted;
    if (!definitions.some((definition) => definition.id === name))
      throw new ServiceError('not-found', `There is no step ${name}.`, {
        fix: `The steps are ${definitions.map((definition) => definition.id).join(', ')}.`,
      });
    const step = this.steps(id).steps.find(
      (one) => one.step === name && one.platform === platform && one.network === network,
    );
    if (!step)
      throw new ServiceError(
        'not-found',
        `${id} has no step ${name} for ${network ?? 'the edition'} on ${platformLabels[platform]}.`,
        {
          fix: `See syndexa steps ${id}.`,
        },
      );
    if (done && !step.tickable && !step.tick)
      throw new ServiceError(
        'invalid',
        `${name} is read from the tree or the roster, so it cannot be set by hand: ${step.why}`,
        {
          fix: step.command ?? `See syndexa steps ${id}.`,
        },
      );
    this.context.steps.tick(
      { title: id, platform, network, step: name },
      done ? { who, at: this.context.now().toISOString(), note } : null,
    );
    this.context.events.tell({ kind: 'title', title: id });
    return this.steps(id);
  }

  /** Looks every edition up in the store. */
  async lookUp(id: string): Promise<StoreListing[]> {
    const { title } = this.context.roster.get(id);
    const address = this.context.partners.storeAddress();
    if (address === undefined)
      throw new ServiceError('invalid', 'The service does not know the address of a store.', {
        fix: 'Set its look-up address for the service: SYNDEXA_STORE=http://…/store.',
      });
    const found: StoreListing[] = [];
    for (const platform of platforms) {
      const identifier = title.editions[platform]?.identifier;
      if (identifier === undefined) continue;
      const answer = await this.context.partners.ask(
        'The store',
        `${address}/${platform}/${encodeURIComponent(identifier)}`,
      );
      const parsed = LookUpAnswer.safeParse(answer);
      if (!parsed.success)
        throw new ServiceError('partner-odd', 'The response of the store is invalid.', {
          fix: 'Check SYNDEXA_STORE.',
        });
      const { listed, name, site } = parsed.data;
      const lookedAt = this.context.now().toISOString();
      found.push({ platform, identifier, listed, name: name ?? null, site: site ?? null, lookedAt });
    }
    for (const listing of found) this.context.steps.saveListing(listing);
    this.context.events.tell({ kind: 'title', title: id });
    return found;
  }

  private contextFor(
    id: string,
    platform: Platform,
    profile: Profile,
    tally: StepContext['tally'],
  ): StepContext {
    const { roster, trees, inventories, secrets, steps, partners } = this.context;
    const { title } = roster.get(id);
    const profiles = this.context.profiles.profiles();
    const identifier = title.editions[platform]?.identifier ?? '';
    const expected = expectedIds(title, profiles, platform).filter(({ network }) => network === profile.id);
    const inventory = inventories
      .about(expected.flatMap((item) => item.id ?? []))
      .find(({ network }) => network === profile.id);
    const own = valueAt(title.networks, profile.id)?.[platform]?.production?.app;
    const app = inventory?.apps.find(
      (one) => one.platform === platform && (one.id === own || one.identifier === identifier),
    );
    const http = profile.inventory?.http;
    const reference = http && valueAt(valueAt(roster.publisher()?.credentials, profile.id), http.key);
    const seen = steps.appAds();
    const reading = trees.readings(id).find((one) => one.platform === platform);
    return {
      titleId: id,
      title,
      publisher: roster.publisher(),
      platform,
      identifier,
      profile: reading ? profileFor(profile, reading.edition.stack) : profile,
      expected,
      reading,
      inventory,
      app,
      key: reference === undefined ? undefined : { reference, held: secrets.find(reference) !== undefined },
      appAds: seen && {
        url: seen.url,
        at: seen.at,
        comparisons: compareAppAds(seen.text, neededRecords(roster.roster(), profiles)),
      },
      listing: steps.listing(platform, identifier),
      rehearsal: lastRehearsals(this.context, id)[platform],
      tally,
      canLookUp: partners.storeAddress() !== undefined,
      now: this.context.now().toISOString(),
    };
  }
}
