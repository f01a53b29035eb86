import { sitesOf } from '../../checks/code.js';
import { languageOf } from '../../languages/index.js';
import type { LanguageCalls } from '../../network/calls.js';
import type { Profile } from '../../network/model.js';
import type { Format } from '../../words/words.js';
import type { Call } from './attribution.js';
import type { AppCall, Trigger } from './model.js';
import { triggerOf, type Callbacks } from './triggers.js';

/** How a profile's code looks in the language of a file. */
export function codeIn(profile: Profile, path: string): LanguageCalls | undefined {
  const language = languageOf(path)?.id;
  return language === undefined ? undefined : profile.code[language];
}

/** The screen that code belongs to: its class, or its file where it is in none. */
export function screenOf({ place, code }: Pick<Call, 'place' | 'code'>): { id: string; name: string } {
  const id = `${place.path}#${code?.type ?? ''}`;
  return { id, name: screenName(id) };
}

/** What people call a screen: its class without the underscore and the ending of a state, or its file. */
export function screenName(id: string): string {
  const [path = '', type = ''] = id.split('#');
  const file = (path.split('/').at(-1) ?? path).replace(/\.[^.]+$/, '');
  return type === '' ? file : (/^_(\w+)State$/.exec(type)?.[1] ?? type);
}

/** How a call is treated if reading cannot tell what runs it. */
const usual = {
  load: { trigger: 'open', text: 'it runs when the screen is opened' },
  view: { trigger: 'open', text: 'it runs when the screen is opened' },
  show: { trigger: 'tap', text: 'it runs when the user does something' },
  start: { trigger: 'launch', text: 'it runs when the app is launched' },
  consent: { trigger: 'launch', text: 'it runs when the app is launched' },
  release: { trigger: 'leave', text: 'it runs when the screen goes away' },
} as const satisfies Record<string, { trigger: Trigger; text: string }>;

/** A call as the rehearsal makes it. */
export function appCall(
  profile: Profile,
  fact: Call,
  {
    action,
    format,
    isLaunch,
    others = [],
  }: { action: keyof typeof usual; format?: Format; isLaunch: boolean; others?: readonly Profile[] },
): AppCall {
  const code = codeIn(profile, fact.place.path);
  const callbacks: Callbacks = {
    ...(format ? code?.formats[format]?.callbacks : {}),
    started: code?.start.completed,
    othersFailed: others.flatMap((one) =>
      Object.values(codeIn(one, fact.place.path)?.formats ?? {}).flatMap(
        ({ callbacks }) => callbacks.failed ?? [],
      ),
    ),
  };
  const sites = sitesOf(fact);
  const found = sites.flatMap(({ methods }) => triggerOf(methods, callbacks) ?? []);
  // Code of the application itself runs once, before any screen.
  const placed = found.map((trigger) => (isLaunch && trigger === 'open' ? 'launch' : trigger));
  const { trigger, text } = usual[action];
  const isKnown = placed.length > 0;
  const where = (fact.code?.methods ?? []).join(' › ') || 'its class';
  return {
    call: fact.value,
    triggers: isKnown ? [...new Set(placed)] : [trigger],
    screen: screenOf(fact).id,
    isOfApp: isLaunch,
    place: fact.place,
    follows: [...new Set(sites.flatMap(({ follows }) => follows))],
    isAwaited: fact.awaited ?? fact.code?.waits !== undefined,
    order: fact.place.line * 1_000 + fact.place.column,
    isLooped: fact.code?.looped === true,
    // A button's method is called by the system, and nothing in code says so: this is not an assumption.
    ...(isKnown || action === 'show' ? {} : { assumed: `${text}; nothing in the file calls ${where}.` }),
  };
}
