import type { Fact } from '../../facts/model.js';
import { callsOf } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** An SDK is started in a class that the system never makes: an application class or a delegate that nothing names. */
export const startInUnusedClass = defineRule({
  meta: {
    id: 'code/start-in-unused-class',
    severity: 'blocker',
    ifShipped: 'The system never makes the class, so the SDK is not started and every placement stays empty.',
    mend: 'Name the class in the application element of the manifest: android:name="{name}".',
    otherMends: {
      delegate:
        'Give the class to the app: @UIApplicationDelegateAdaptor({name}.self) in the App structure of SwiftUI, or @main on the class.',
    },
    messages: {
      noDelegate:
        '{network} is started in {class}, but nothing gives the app of {variants} that class as its delegate.',
      otherDelegate: '{network} is started in {class}, but the delegate of the app is {found}.',
      unnamed: '{network} is started in {class}, but the manifest of {variants} names no application class.',
      other: '{network} is started in {class}, but the manifest of {variants} names {found}.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const isAndroid = scope.platform === 'android';
      const kind = isAndroid ? 'application-class' : 'app-delegate';
      const classes = scope.facts.filter((fact) => fact.kind === kind);
      const own = classes.filter(({ name }) => name !== undefined);
      const declared = classes.filter(({ name }) => name === undefined);
      for (const profile of scope.networks) {
        const starts = callsOf(scope, profile.id, 'start');
        for (const start of starts) {
          const type = start.code?.type ?? '';
          if (!own.some(({ value }) => value === type)) continue;
          // Another start may be the one that counts.
          if (starts.some((other) => other.code?.type !== type)) continue;
          const made = (variant: string) =>
            declared.some(({ value, variants }) => variants.includes(variant) && isA(last(value), type, own));
          const variants = start.variants.filter((variant) => !made(variant));
          if (variants.length === 0) continue;
          const found = declared.find((fact) => fact.variants.some((name) => variants.includes(name)));
          const name = isAndroid ? `.${type}` : type;
          const data = { network: profile.name, class: type, variants: listed(variants), name };
          const base = { ...fromFact(start), place: scope.edition.home, variants };
          if (!isAndroid)
            yield {
              ...base,
              place: own.find(({ value }) => value === type)?.place ?? start.place,
              mend: 'delegate',
              ...(found
                ? { message: 'otherDelegate', data: { ...data, found: found.value } }
                : { message: 'noDelegate', data }),
            };
          else
            yield found
              ? { ...base, place: found.place, message: 'other', data: { ...data, found: found.value } }
              : { ...base, message: 'unnamed', data };
        }
      }
    }
  },
});

const last = (name: string) => name.split(/[.$]/).at(-1) ?? name;

/** Whether a class is another one, or extends it through any number of classes of the tree. */
function isA(name: string, wanted: string, classes: readonly Fact[], depth = 0): boolean {
  if (name === wanted) return true;
  return (
    depth < 10 &&
    classes.some(
      (one) =>
        one.value === name &&
        isA(last((one.name ?? '').replace(/^extends /, '')), wanted, classes, depth + 1),
    )
  );
}
