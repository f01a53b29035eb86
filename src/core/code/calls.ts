import type { Profile } from '../network/model.js';
import type { SurveyContext } from '../roster/survey-context.js';
import type { CodePlace } from '../facts/evidence.js';
import type { Fact } from '../facts/model.js';
import { placeAt } from '../facts/place.js';
import type { TextDocument } from '../text/document.js';
import type { Tree } from '../tree/tree.js';
import { codePlace } from './code-place.js';
import { placebookUses } from './placebook-uses.js';
import { languageOf, type Language } from '../languages/index.js';
import type { PlainValue, SourceCall, SourceReading } from './source-reading.js';
import { codeOf, isPlacebook, readingOf, type CodeFile } from './source-files.js';
import { textsOf } from './shared-names.js';
import { groupBy } from '../text/group-by.js';
import { argumentAt, callbacksOf, callsOf, isCallOf, lastPart, type NamedCall } from './named-calls.js';
import { surroundings } from './surroundings.js';
import { followed, gateCalls, isAwaited, waitingFor, type GateCall } from './waiting.js';

/** Facts for calls of SDKs in a source file, its answers to their callbacks, and placements that it names. */
export function callFacts(tree: Tree, file: CodeFile, { profiles, title }: SurveyContext): Fact[] {
  const document = tree.text(file.path);
  const language = languageOf(file.path);
  if (!document || !language || isPlacebook(tree, file.path)) return [];
  const reading = readingOf(tree, file.path);
  const mine = profiles.filter((profile) => profile[file.platform]);
  const wanted = mine.flatMap((profile) => callsOf(profile, language.id));
  const named = groupBy(wanted, ({ network }) => network);
  const gates = new Map([...named].map(([network, calls]) => [network, gateCalls(reading, calls)]));
  const source: Source = { tree, file, document, language, reading, gates };
  return [
    ...namedCalls(source, wanted),
    ...mine.flatMap((profile) => callbacks(source, profile)),
    ...placementUses(source, title),
  ];
}

interface Source {
  tree: Tree;
  file: CodeFile;
  document: TextDocument;
  language: Language;
  reading: SourceReading;
  /** The calls that start a network's SDK, or ask for consent. */
  gates: ReadonlyMap<string, readonly GateCall[]>;
}

/** What a fact about a place in code has in common with all such; none where no variant compiles it. */
function factAt(
  { file, document }: Source,
  at: { start: number; end: number },
  value: string,
  conditions: CodePlace['conditions'] = [],
) {
  const variants = file.variants.filter((variant) => file.compiled(variant, at.start, conditions) !== 'no');
  if (variants.length === 0) return [];
  const { platform, module } = file;
  const place = placeAt(file.path, document, at);
  const chain = [{ what: 'code', value, place }];
  return [{ platform, module, variants, value, effective: true as const, place, chain }];
}

function namedCalls(source: Source, wanted: readonly NamedCall[]): Fact[] {
  const named = groupBy(wanted, ({ call }) => lastPart(call));
  return source.reading.calls.flatMap((call) =>
    (named.get(lastPart(call.name)) ?? [])
      .filter((one) => isCallOf(call, one))
      .flatMap((one) => callFact(source, call, one)),
  );
}

/** What is given as an ID may differ by variant, so each variant is a fact then; equal ones are put together later. */
function callFact(source: Source, call: SourceCall, named: NamedCall): Fact[] {
  const { network, call: value, action, format, id } = named;
  const { tree, file, document, language, reading } = source;
  const span = { start: call.start, end: Math.min(call.end, call.start + 200) };
  const isGate = action === 'start' || action === 'consent';
  const after = isGate
    ? { awaited: isAwaited(document.text, call) }
    : followed(reading, call, source.gates.get(network) ?? []);
  const waits = language.hasPromises ? waitingFor(document.text, call, reading) : undefined;
  const held = action === 'view' ? { anchor: call.heldAt ?? ('own-component' as const) } : {};
  const { type } = call.context;
  const inOrder = action === 'load' || action === 'view' || action === 'show';
  const calledAt = inOrder ? callersOf(source, call, network) : undefined;
  const fact = (argument?: CodePlace['argument']): Fact[] => {
    const more = { ...(argument && { argument }), ...(waits && { waits }), ...(calledAt && { calledAt }) };
    const code = codePlace(call.context, more);
    const own = {
      kind: 'call' as const,
      network,
      action,
      ...(format && { format }),
      ...held,
      ...after,
      code,
    };
    return factAt(source, span, value, code.conditions).map((base) => ({ ...own, ...base }));
  };
  if (action === 'test-devices') return registered(source, call, fact);
  const given = id === undefined ? undefined : argumentAt(call, id);
  if (!given) return fact();
  return file.variants.flatMap((variant) =>
    fact(idArgument(tree, file, { variant, type, values: given }))
      .filter(({ variants }) => variants.includes(variant))
      .map((made) => ({ ...made, variants: [variant] })),
  );
}

function callbacks(source: Source, profile: Profile): Fact[] {
  return callbacksOf(profile, source.language.id).flatMap(({ event, name }) =>
    source.reading.methods
      .filter((candidate) => candidate.name === name)
      .flatMap((method) => {
        const span = { start: method.start, end: Math.min(method.end, method.start + 200) };
        const code = codePlace(method.context, { empty: method.empty });
        const own = { kind: 'callback' as const, network: profile.id, name: event, code };
        return factAt(source, span, name, code.conditions).map((base) => ({ ...own, ...base }));
      }),
  );
}

function placementUses(source: Source, title: SurveyContext['title']): Fact[] {
  const { tree, file, document, reading } = source;
  if (!document.text.includes('Placebook')) return [];
  const code = codeOf(tree, file.path);
  return placebookUses(code, Object.keys(title?.placements ?? {})).flatMap(({ placement, ...span }) => {
    const holder = surroundings(reading)
      .holders(span)
      .findLast(({ is, isType }) => is === 'name' && !isType);
    const flow = holder && { into: 'constant' as const, name: holder.name };
    return factAt(source, span, code.slice(span.start, span.end)).map((base) => ({
      kind: 'placement-use' as const,
      network: null,
      placement,
      name: placement,
      ...(flow ? { code: { type: null, methods: [], conditions: [], flow } } : {}),
      ...base,
    }));
  });
}

/** A list with nothing in it, in any language. */
const emptyList =
  /^(?:const\s*)?(?:<\w+>\s*)?(?:\[\s*\]|@\[\s*\]|null|nil|(?:[\w.]+\.)?(?:listOf|setOf|emptyList|emptySet|of|Empty)(?:<\w+>)?\(\s*\)|new\b[^()[\]{}]*(?:\(\s*\)|\[\s*0?\s*\]|\[\s*\]\s*\{\s*\}))$/;

/**
 * Test devices are registered in the variants in which what is given is neither plainly off (`rehearsal = kDebugMode`) nor
 * empty (`kDebugMode ? ['a81f'] : []`).
 */
function registered(
  { file, document, reading }: Source,
  call: SourceCall,
  fact: (argument?: CodePlace['argument']) => Fact[],
): Fact[] {
  const values = call.arguments[0]?.values ?? [];
  const given = values.map(({ start, end }) => ({
    start,
    text: document.text.slice(start, Math.min(end, start + 200)).replace(/\s+/g, ' '),
  }));
  const conditionsAt = (start: number) =>
    surroundings(reading)
      .stretches({ start, end: start })
      .map(({ condition }) => condition);
  const isOn = (variant: string) =>
    given.length === 0 ||
    given.some(({ start, text }) => {
      const asked = [...conditionsAt(start), { text, holds: true }];
      return !emptyList.test(text) && file.compiled(variant, start, asked) !== 'no';
    });
  const written = given.map(({ text }) => text).join(' : ');
  return fact({ written, ids: [] }).flatMap((made) => {
    const variants = made.variants.filter(isOn);
    return variants.length > 0 ? [{ ...made, variants }] : [];
  });
}

/** How many calls of the method around a call are kept, and through how many methods they are followed. */
const maxCallers = 12;
const maxThrough = 3;

/** Where the same file calls the method around a call, directly or through another; undefined for nowhere. */
function callersOf(source: Source, call: SourceCall, network: string): CodePlace['calledAt'] {
  const { reading, document } = source;
  const found = new Map<SourceCall, NonNullable<CodePlace['calledAt']>[number]>();
  let around: Pick<SourceCall, 'context'>[] = [call];
  for (let through = 0; through < maxThrough && around.length > 0; through++) {
    const next: SourceCall[] = [];
    for (const { context } of around) {
      const [method, ...inner] = context.methods;
      if (method === undefined || inner.length > 0) continue;
      for (const caller of surroundings(reading).named.get(method) ?? []) {
        if (found.size >= maxCallers) break;
        if (caller.context.type !== context.type || found.has(caller)) continue;
        const { line, column } = document.lines.at(caller.start);
        const { methods, conditions } = caller.context;
        const follows = followed(reading, caller, source.gates.get(network) ?? []);
        found.set(caller, { methods: [...methods], conditions: [...conditions], ...follows, line, column });
        next.push(caller);
      }
    }
    around = next;
  }
  return found.size > 0 ? [...found.values()] : undefined;
}

/** What is given as an ID: as it is written, and the IDs that it comes to in a variant. */
function idArgument(
  tree: Tree,
  file: CodeFile,
  given: { variant: string; type: string | null; values: readonly PlainValue[] },
): NonNullable<CodePlace['argument']> {
  const text = tree.text(file.path)?.text ?? '';
  const [first, last] = [given.values[0], given.values.at(-1)];
  const written = first && last ? text.slice(first.start, last.end).replace(/\s+/g, ' ').slice(0, 200) : '';
  return { written, ids: textsOf(tree, file, given) };
}
