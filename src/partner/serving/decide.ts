import { platformLabels } from '../../core/words/platform-labels.js';
import { samplesOf } from '../../core/network/samples.js';
import type { Profile } from '../../core/network/model.js';
import type { Format } from '../../core/words/words.js';
import type { PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import type { UnitRow } from '../store/rows.js';
import type { AdAsk, GivenAd } from './ad.js';

/**
 * Decides whether an ad is served: test units always fill; other units fill by fill rate and floor price. Returns null for
 * no fill.
 * @throws Refusal if the unit cannot serve, with the network's reason
 */
export function decide(context: PartnerContext, profile: Profile, ask: AdAsk): GivenAd | null {
  const { books, ledger, market } = context;
  const isDevelopment = ask.isDevelopment ?? false;
  const sample = profile.ids.unit && samplesOf(profile.ids.unit).find(({ id }) => id === ask.unit);
  if (sample) {
    const format = sample.format ?? ask.formats?.[0] ?? 'banner';
    checkFormat(profile, ask, format);
    checkApp(context, profile, ask);
    return { unit: ask.unit, account: null, format, isTest: true, isDevelopment, price: 0 };
  }
  const unit = books.unit(profile.id, ask.unit);
  if (!unit || unit.status === 'removed') throw new Refusal('not-found', `There is no unit ${ask.unit}.`);
  checkApp(context, profile, ask);
  checkServing(context, profile, unit, ask);
  const format = unit.format as Format;
  const given = { unit: unit.id, account: unit.account, format, isDevelopment };
  const isRegistered = ask.device !== undefined && ledger.isTestDevice(profile.id, unit.account, ask.device);
  if (ask.isTest || isRegistered) return { ...given, isTest: true, price: 0 };
  const price = market.offer(profile.id, unit.id);
  return price === null || price < (ask.floor ?? 0) ? null : { ...given, isTest: false, price };
}

/** A sample serves any application; a known app ID must be of the application that asks. */
function checkApp({ books }: PartnerContext, profile: Profile, ask: AdAsk): void {
  if (ask.app === undefined || !profile.ids.app) return;
  const sample = samplesOf(profile.ids.app).find(({ id }) => id === ask.app);
  const app = sample ?? books.app(profile.id, ask.app);
  if (!app) throw new Refusal('not-found', `There is no app ${ask.app}.`);
  if (ask.platform !== undefined && app.platform !== ask.platform)
    throw new Refusal(
      'unit-elsewhere',
      `The app ID ${ask.app} is for ${platformLabels[app.platform]}, not for ${platformLabels[ask.platform]}.`,
    );
}

function checkServing({ books, clock }: PartnerContext, profile: Profile, unit: UnitRow, ask: AdAsk): void {
  const suspended = books.accountById(unit.account)?.suspended;
  if (suspended) throw new Refusal('account-suspended', suspended);
  const app = unit.app === null ? undefined : books.app(profile.id, unit.app);
  const own = app && { platform: app.platform, identifier: app.identifier };
  if (ask.platform !== undefined && unit.platform !== ask.platform)
    throw new Refusal(
      'unit-elsewhere',
      `${unit.id} is for ${platformLabels[unit.platform]}, not for ${platformLabels[ask.platform]}.`,
    );
  if (own && ask.identifier !== undefined && own.identifier !== ask.identifier)
    throw new Refusal(
      'unit-elsewhere',
      `${unit.id} belongs to ${own.identifier}, not to ${ask.identifier}.`,
      {
        belongs_to: own.identifier,
      },
    );
  checkFormat(profile, ask, unit.format as Format);
  if (unit.status === 'paused') throw new Refusal('unit-paused', `${unit.id} is paused.`);
  if (app && !app.terms)
    throw new Refusal('terms-open', `The terms were not accepted for ${app.name}.`, { app: app.id });
  if (own && !books.listing(own.platform, own.identifier))
    throw new Refusal('app-unlisted', `${own.identifier} is in no store that we know.`);
  if (ask.isChild && profile.audiences && !profile.audiences.allowed.includes('children'))
    throw new Refusal('audience-refused', `${profile.name} serves nothing to children.`);
  const left = Math.ceil((Date.parse(unit.servesFrom) - clock.now().getTime()) / 1000);
  if (left > 0)
    throw new Refusal('unit-too-new', `${unit.id} is new and serves nothing yet.`, {
      serves_from: unit.servesFrom,
      seconds_left: left,
    });
}

function checkFormat(profile: Profile, { unit, formats }: AdAsk, format: Format): void {
  if (formats && !formats.includes(format))
    throw new Refusal(
      'format-wrong',
      `${unit} of ${profile.name} is ${format}, not ${formats.join(' or ')}.`,
    );
}
