import type { Format } from '../../words/words.js';
import { defineRule } from '../model.js';
import { callsOf, oncePerPlace, readyNames } from '../code.js';
import { editionScopes, fromFact } from '../scope.js';

/** An ad is shown each time the screen comes back, with nothing that would hold it. */
export const showOnReturn = defineRule({
  meta: {
    id: 'code/show-on-return',
    severity: 'warning',
    ifShipped:
      'Closing the ad brings the screen back, which shows the next one: users leave, and networks suspend for it.',
    mend: 'Show it when the user does something, or limit it by time or count.',
    messages: {
      again: '{call} runs without a condition in {method}, which is called on every return to the screen.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const show of oncePerPlace(callsOf(scope, profile.id, 'show'))) {
          if (!show.format || !interrupting.has(show.format)) continue;
          const { conditions = [], methods = [] } = show.code ?? {};
          const method = methods.at(-1);
          const names = readyNames(profile, scope.platform, show.format);
          const guarded = conditions.some(({ text }) => !onlyAsks(text, names));
          if (method === undefined || !returns.has(method) || guarded) continue;
          yield { ...fromFact(show), message: 'again', data: { call: show.value, method } };
        }
      }
    }
  },
});

/** Formats that cover what a person was doing. */
const interrupting = new Set<Format>(['interstitial', 'rewarded', 'video']);

/** Methods that the system calls whenever a screen or the app comes back. */
const returns = new Set([
  'onResume',
  'onStart',
  'onRestart',
  'onWindowFocusChanged',
  'viewWillAppear',
  'viewDidAppear',
  'applicationDidBecomeActive',
  'applicationWillEnterForeground',
  'sceneDidBecomeActive',
  'sceneWillEnterForeground',
  'OnApplicationFocus',
  'OnApplicationPause',
  'OnEnable',
  'OnAppearing',
  'OnNavigatedTo',
  'OnResume',
]);

/** Whether a condition asks for nothing but that an ad is there and loaded. */
function onlyAsks(text: string, names: readonly string[]): boolean {
  const rest = names.reduce((left, name) => left.replaceAll(name, ''), text);
  return (
    !/[A-Za-z_]\w*\s*(\(|[<>]|[+-])|&&|\|\|/.test(rest) &&
    (rest !== text || /(==|!=)\s*(null|nil)/.test(text))
  );
}
