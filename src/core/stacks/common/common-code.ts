import { callFacts } from '../../code/calls.js';
import { type Compiled, both } from '../../syntax/compiled.js';
import type { ConditionTerms } from '../../syntax/conditions.js';
import { flagsOf, weigh } from '../../code/flags.js';
import { compiledAt, type IsDefined } from '../../syntax/preprocessor.js';
import { codeFacts } from '../../code/facts.js';
import { sharedNames } from '../../code/shared-names.js';
import { isPlacebook, readingOf, type CodeFile } from '../../code/source-files.js';
import { mergeVariants } from '../../facts/merge.js';
import type { Platform } from '../../words/words.js';
import { isIdFact, type Fact, type SurveyEdition, type Unresolved, type Variant } from '../../facts/model.js';
import { placeAt } from '../../facts/place.js';
import { withPlacements } from '../../roster/variant-stages.js';
import type { Tree } from '../../tree/tree.js';
import type { StackSurvey } from '../stack.js';
import type { SurveyContext } from '../../roster/survey-context.js';

/** What the build says in a variant; names of the code's own are looked up by `constant`. */
type TermsFor = (edition: SurveyEdition, variant: Variant) => ConditionTerms;

/** How shared source files are compiled. */
interface SharedCode {
  editions: readonly SurveyEdition[];
  terms: TermsFor;
  context: SurveyContext;
  /** Whether the code of a platform takes a file in, by its name, and by what the variant defines. */
  isBuiltFor?: (path: string, platform: Platform, names: IsDefined | undefined) => boolean;
  /** What a variant defines for `#if`, in languages with a preprocessor. */
  defined?: (edition: SurveyEdition, variant: Variant) => IsDefined;
}

/** IDs, calls and callbacks in source files that both platforms compile, weighed for each edition and variant. */
export function sharedCodeFacts(
  tree: Tree,
  paths: readonly string[],
  { editions, terms, context, isBuiltFor = () => true, defined }: SharedCode,
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  // What a preprocessor leaves is another file in each variant.
  const parts = editions.flatMap((edition): { edition: SurveyEdition; names?: IsDefined }[] =>
    defined
      ? edition.variants.map((variant) => ({
          edition: { ...edition, variants: [variant] },
          names: defined(edition, variant),
        }))
      : [{ edition }],
  );
  const common = defined ? undefined : sharedNames(tree, paths);
  for (const { edition, names } of parts) {
    const { platform, module } = edition;
    const mine = paths.filter((each) => isBuiltFor(each, platform, names));
    const stretches = new Map(
      names ? mine.map((path) => [path, compiledAt(tree.text(path)?.text ?? '', names)]) : [],
    );
    const isLeft = (path: string, offset: number): Compiled => stretches.get(path)?.(offset) ?? 'yes';
    const shared = common ?? sharedNames(tree, mine, (path, { start }) => isLeft(path, start) !== 'no');
    const variants = edition.variants.map(({ name }) => name);
    const siblings: CodeFile[] = [];
    for (const path of mine) {
      const compiled = compiledUnder(tree, path, { edition, terms, isLeft });
      siblings.push({ path, platform, module, variants, compiled, shared, siblings });
    }
    for (const file of siblings) {
      const { path } = file;
      const found = codeFacts(tree, file, context);
      const withFlags = found.facts.filter((fact) => isIdFact(fact) && fact.carrier === 'code');
      facts.push(...found.facts, ...callFacts(tree, file, context), ...flagFacts(tree, path, withFlags));
      facts.push(...openChoices(tree, file, context));
      unresolved.push(...found.unresolved);
    }
  }
  return {
    facts: mergeVariants(withPlacements(facts, context.title)),
    unresolved: mergeVariants(unresolved),
  };
}

/** Whether a variant compiles a place of a file. What a condition comes to is computed once for each variant. */
function compiledUnder(
  tree: Tree,
  path: string,
  {
    edition,
    terms,
    isLeft,
  }: { edition: SurveyEdition; terms: TermsFor; isLeft: (path: string, offset: number) => Compiled },
): CodeFile['compiled'] {
  const variants = new Map(edition.variants.map((variant) => [variant.name, variant]));
  const flag = flagsOf(tree, path);
  const weighed = new Map<string, Compiled>();
  return (name, offset, conditions) => {
    const variant = variants.get(name);
    if (!variant) return 'unknown';
    const left = isLeft(path, offset);
    if (left !== 'yes') return left;
    return conditions.reduce<Compiled>((state, { text, holds }) => {
      const key = `${name} ${String(holds)} ${text}`;
      const known = weighed.get(key) ?? weigh({ text, holds }, terms(edition, variant), flag);
      weighed.set(key, known);
      return both(state, known);
    }, 'yes');
  };
}

/**
 * Choices by platform that hold an ID of a network and have no value for this one: what is asked there is asked
 * without an ID.
 */
function openChoices(
  tree: Tree,
  { path, platform, module, variants }: CodeFile,
  context: SurveyContext,
): Fact[] {
  const document = tree.text(path);
  if (!document || isPlacebook(tree, path)) return [];
  const reading = readingOf(tree, path);
  return reading.choices.flatMap(({ cases, start, end }): Fact[] => {
    if (!cases || [platform, 'native', 'default'].some((one) => cases.includes(one))) return [];
    const inside = reading.strings.filter((text) => start <= text.start && text.end <= end);
    const ids = inside.flatMap(({ value }) => context.recogniser.recognise(value.trim()));
    const network = ids.find(({ kind }) => kind === 'unit' || kind === 'app')?.network;
    if (network === undefined) return [];
    const place = placeAt(path, document, { start, end });
    const value = cases.join(', ');
    const chain = [{ what: 'code', value: `cases: ${value}`, place }];
    return [
      {
        kind: 'left-open',
        network,
        platform,
        module,
        variants: [...variants],
        name: 'choice',
        value,
        effective: true,
        place,
        chain,
      },
    ];
  });
}

/** Constants that are plainly `true` or `false` and decide which ID is used. */
function flagFacts(tree: Tree, path: string, facts: readonly Fact[]): Fact[] {
  const document = tree.text(path);
  if (!document) return [];
  return facts.flatMap((fact) =>
    (fact.code?.conditions ?? []).flatMap(({ text }): Fact[] => {
      const name = /^!?\s*([A-Za-z_$][\w$.]*)$/.exec(text)?.[1];
      const value = name === undefined ? undefined : flagsOf(tree, path)(name);
      const [at] = (name === undefined ? undefined : readingOf(tree, path).constants.get(name)) ?? [];
      if (name === undefined || !at || (value !== 'true' && value !== 'false')) return [];
      const place = placeAt(path, document, at);
      const { network, platform, module, variants } = fact;
      const chain = [{ what: 'constant', value: `${name} = ${value}`, place }, ...fact.chain];
      const base = { network, platform, module, variants, name, value, effective: true as const };
      return [{ kind: 'hand-flag', ...base, place, chain }];
    }),
  );
}

/** Calls of the framework itself that say when it is ready and when the interface is built. */
export function frameworkCalls(
  tree: Tree,
  paths: readonly string[],
  editions: readonly SurveyEdition[],
  names: Readonly<Record<string, RegExp>>,
): Fact[] {
  return paths.flatMap((path) => {
    const document = tree.text(path);
    if (!document || isPlacebook(tree, path)) return [];
    return readingOf(tree, path).calls.flatMap((call) =>
      Object.entries(names).flatMap(([name, pattern]) => {
        if (!pattern.test(call.name)) return [];
        const place = placeAt(path, document, {
          start: call.start,
          end: Math.min(call.end, call.start + 200),
        });
        const { type, methods, conditions } = call.context;
        return editions.map(({ platform, module, variants }): Fact => ({
          kind: 'framework-call',
          network: null,
          platform,
          module,
          variants: variants.map((variant) => variant.name),
          name,
          value: call.name,
          effective: true,
          code: { type, methods: [...methods], conditions: [...conditions] },
          place,
          chain: [{ what: 'code', value: call.name, place }],
        }));
      }),
    );
  });
}
