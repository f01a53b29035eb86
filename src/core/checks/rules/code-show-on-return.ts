import type { Format } from '../../words/words.js';
import { defineRule } from '../model.js';
import { onlyAsks } from '../show-conditions.js';
import { callsOf, oncePerPlace, readyNames, sitesOf } from '../code.js';
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
      again:
        '{call} runs in {method}, which is called on every return to the screen, and nothing limits how often.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        for (const show of oncePerPlace(callsOf(scope, profile.id, 'show'))) {
          if (!show.format || !interrupting.has(show.format)) continue;
          const names = readyNames(profile, scope.platform, show.format);
          const [own, ...callers] = sitesOf(show);
          for (const site of own ? [own, ...callers] : []) {
            const method = site.methods.at(-1);
            const conditions =
              site === own ? site.conditions : [...site.conditions, ...(own?.conditions ?? [])];
            if (method === undefined || !returns.has(method)) continue;
            if (conditions.some(({ text }) => !onlyAsks(text, names))) continue;
            yield { ...fromFact(show), message: 'again', data: { call: show.value, method } };
            break;
          }
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
  'OnActivated',
  'OnResumed',
  'didChangeAppLifecycleState',
  'didPopNext',
  'useFocusEffect',
  'AppState.change',
]);
