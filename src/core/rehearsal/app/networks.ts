import { callsOf, languagesFor } from '../../checks/code.js';
import { networkName, type EditionScope } from '../../checks/scope.js';
import type { CheckContext } from '../../checks/model.js';
import { isWhereBuildLooks } from '../../facts/effective.js';
import type { Profile } from '../../network/model.js';
import { valueAt } from '../../text/own-values.js';
import type { Format } from '../../words/words.js';
import { durationMs } from '../../words/durations.js';
import type { Call } from './attribution.js';
import { appCall, codeIn, screenOf } from './calls.js';
import type { AppNetwork } from './model.js';

/** Where the application itself is: the files and classes that start an SDK. */
export function launchScreens(scope: EditionScope): Set<string> {
  return new Set(
    scope.networks.flatMap(({ id }) => callsOf(scope, id, 'start').map((call) => screenOf(call).id)),
  );
}

/** How a variant of an edition starts the SDK of a network, and how the network is asked. */
export function appNetwork(
  context: CheckContext,
  scope: EditionScope,
  profile: Profile,
  variant: string,
): AppNetwork {
  const { serving } = profile;
  const inVariant = (calls: readonly Call[]) => calls.find(({ variants }) => variants.includes(variant));
  const starter = inVariant(callsOf(scope, profile.id, 'start'));
  const consent = inVariant(callsOf(scope, profile.id, 'consent'));
  const code = starter && codeIn(profile, starter.place.path);
  const isLaunch = true;
  return {
    id: profile.id,
    name: networkName(context, profile.id),
    appId: appIdOf(context, scope, profile, variant),
    stopsWithoutAppId: (profile[scope.platform]?.['app-id']?.place ?? 'code') !== 'code',
    startUp: starter ? appCall(profile, starter, { action: 'start', isLaunch }) : null,
    startsAfter: startedAfter(scope, profile, starter),
    needsStart: languagesFor(profile, scope.platform).length > 0,
    takesTime: code?.start.completed !== undefined || code?.start.completes !== undefined,
    consent: consent ? appCall(profile, consent, { action: 'consent', isLaunch }) : null,
    consentFirst: serving?.['consent-first'] ?? false,
    registersDevices: callsOf(scope, profile.id, 'test-devices').some(({ variants }) =>
      variants.includes(variant),
    ),
    asked: serving?.by ?? null,
    keeps: serving?.keeps === undefined ? null : durationMs(serving.keeps),
    caps: new Map(
      Object.entries(profile.formats).flatMap(([format, { cap }]) =>
        cap ? [[format as Format, { max: cap.max, per: durationMs(cap.per) }] as const] : [],
      ),
    ),
    managedRefresh: managedRefresh(profile),
  };
}

/** The network in whose callback the SDK of another is started. */
function startedAfter({ networks }: EditionScope, { id }: Profile, start: Call | undefined): string | null {
  if (!start) return null;
  const methods = start.code?.methods ?? [];
  const first = networks.find((other) => {
    const completed = codeIn(other, start.place.path)?.start.completed;
    return other.id !== id && completed !== undefined && methods.includes(completed);
  });
  return first?.id ?? null;
}

/** A network that refreshes by itself does so between its bounds. */
function managedRefresh({ formats }: Profile): number | null {
  const bounds = formats.banner?.refresh;
  return bounds?.managed ? (durationMs(bounds.min) + durationMs(bounds.max)) / 2 : null;
}

/** The app ID that a variant carries where the SDK looks for it, or that it hands over. */
function appIdOf(
  { survey }: CheckContext,
  { platform, edition, facts }: EditionScope,
  profile: Profile,
  variant: string,
): AppNetwork['appId'] {
  if (!profile[platform]?.['app-id']) return { is: 'not-needed' };
  const found = facts.find(
    (fact) =>
      fact.kind === 'app-id' &&
      fact.network === profile.id &&
      fact.variants.includes(variant) &&
      isWhereBuildLooks(fact),
  );
  if (found) return { is: 'known', value: found.value };
  const isOpen = survey.unresolved.some(
    (one) =>
      one.kind === 'app-id' &&
      one.network === profile.id &&
      one.platform === platform &&
      one.module === edition.module &&
      one.variants.includes(variant) &&
      one.cause === undefined,
  );
  return { is: isOpen ? 'unknown' : 'missing' };
}

/** The identifier of a variant; null where it cannot be determined. */
export function identifierOf({ edition }: EditionScope, variant: string): string | null {
  return valueAt(edition.identifiers, variant) ?? edition.identifier;
}
