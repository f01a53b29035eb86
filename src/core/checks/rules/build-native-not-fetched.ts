import { requirementsOf } from '../../network/for-stack.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** The native libraries that a package names were not fetched for a platform, or for an older version of it. */
export const nativeNotFetched = defineRule({
  meta: {
    id: 'build/native-not-fetched',
    severity: 'blocker',
    ifShipped:
      'The build stops, or the app crashes at the first call of the SDK because its native libraries are missing.',
    mend: 'Run the command that fetches the native libraries of the package for this platform, and commit what it writes.',
    messages: {
      missing: 'The native libraries of {network} were never fetched: {file} does not exist. Run {command}.',
      older:
        'The native libraries of {network} were fetched for {value}, but the package is newer. Run {command}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts, networks, edition } of editionScopes(context)) {
      for (const profile of networks) {
        for (const fact of facts) {
          if (fact.kind !== 'native-libraries' || fact.network !== profile.id) continue;
          const command = requirementsOf(profile, edition.stack)?.fetch ?? '';
          const data = { network: profile.name, command };
          if (fact.state === 'not-fetched')
            yield { ...fromFact(fact), message: 'missing', data: { ...data, file: fact.name ?? '' } };
          if (fact.state === 'older')
            yield { ...fromFact(fact), message: 'older', data: { ...data, value: fact.value } };
        }
      }
    }
  },
});
