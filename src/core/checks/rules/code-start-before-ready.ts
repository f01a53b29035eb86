import type { Fact } from '../../facts/model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

type Moment = 'early' | 'without' | 'late';

/** The call that prepares a framework for calls of SDKs, in languages whose frameworks have such a call. */
const readyCalls = [
  { files: /\.dart$/, call: 'WidgetsFlutterBinding.ensureInitialized' },
  { files: /\.cs$/, call: 'MauiApp.CreateBuilder' },
];
const readyCallFor = (path: string) => readyCalls.find(({ files }) => files.test(path))?.call;

/** An SDK is started before the framework can carry its calls, or after the interface is up. */
export const startBeforeReady = defineRule({
  meta: {
    id: 'code/start-before-ready',
    severity: 'blocker',
    ifShipped: 'The app stops at launch, or the first screen asks for ads from an SDK that was not started.',
    mend: 'Start it when the framework is ready and before the interface is built.',
    messages: {
      early: '{network} is started before {ready} is called, so the SDK cannot be reached.',
      without:
        '{network} is started before {run}, and nothing calls {ready} first, so the SDK cannot be reached.',
      late: '{network} is started after {run}, so the first screen may request ads too early.',
    },
    needsTitle: true,
  },
  *run(context) {
    const found = editionScopes(context).flatMap((scope) => {
      const moments = scope.facts.filter(({ kind }) => kind === 'framework-call');
      return scope.networks.flatMap((profile) =>
        callsOf(scope, profile.id, 'start').flatMap((start) => {
          const beside = moments.filter(
            ({ place, code }) =>
              place.path === start.place.path && code?.methods.at(-1) === start.code?.methods.at(-1),
          );
          const ready = beside.find(({ name }) => name === 'ready');
          const run = beside.find(({ name }) => name === 'run');
          if (!run) return [];
          const before = (other: Pick<Fact, 'place'>) =>
            start.place.line < other.place.line ||
            (start.place.line === other.place.line && start.place.column < other.place.column);
          const needsReady = readyCallFor(start.place.path) !== undefined;
          const unready: Moment | undefined = ready
            ? before(ready)
              ? 'early'
              : undefined
            : needsReady
              ? 'without'
              : undefined;
          const message = before(run) ? unready : 'late';
          return message === undefined ? [] : [{ start, message, profile, run, place: start.place }];
        }),
      );
    });
    for (const { start, message, profile, run } of oncePerPlace(found)) {
      const data: Record<string, string> = { network: profile.name };
      if (message !== 'late') data.ready = readyCallFor(start.place.path) ?? '';
      if (message !== 'early') data.run = run.value;
      const base = fromFact(start);
      yield { ...base, platform: null, module: null, variants: [], message, data };
    }
  },
});
