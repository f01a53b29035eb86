import type { Profile } from '../network/model.js';
import { camelCase, placebookMark } from '../placebook/model.js';
import type { SurveyContext } from '../stacks/stack.js';
import type { Fact } from '../survey/model.js';
import { placeAt } from '../survey/place.js';
import type { Tree } from '../tree/tree.js';
import type { CodeFile } from './facts.js';
import { codeAlone } from './literals.js';

/** The language of a source file, as profiles name it; null for one that is not read yet. */
export function languageOf(path: string): 'kotlin' | 'java' | 'swift' | null {
  if (path.endsWith('.kt')) return 'kotlin';
  if (path.endsWith('.java')) return 'java';
  return path.endsWith('.swift') ? 'swift' : null;
}

/** A call that a network's profile names. */
interface NamedCall {
  network: string;
  call: string;
  does: string;
}

/** The texts by which source files are found that call an SDK, or name a placement through the placebook. */
export function callNeedles(profiles: readonly Profile[]): string[] {
  const calls = profiles.flatMap((profile) =>
    (['kotlin', 'java', 'swift'] as const).flatMap((language) =>
      callsOf(profile, language).map(({ call }) => call),
    ),
  );
  const views = profiles.flatMap(({ android, ios }) =>
    [...(android?.views ?? []), ...(ios?.views ?? [])].map((view) => view.class),
  );
  return [...new Set(['Placebook.', ...[...calls, ...views].filter(({ length }) => length >= 6)])];
}

function callsOf(profile: Profile, language: 'kotlin' | 'java' | 'swift'): NamedCall[] {
  const calls = profile.code[language];
  if (!calls) return [];
  return [
    { network: profile.id, call: calls.start.call, does: 'start' },
    ...Object.entries(calls.formats).map(([format, { load }]) => ({
      network: profile.id,
      call: load.call,
      does: `load ${format}`,
    })),
  ];
}

/** Facts for calls of SDKs in a source file, and for placements that it names through the placebook. */
export function callFacts(tree: Tree, file: CodeFile, { profiles, title }: SurveyContext): Fact[] {
  const document = tree.text(file.path);
  const language = languageOf(file.path);
  if (!document || !language || document.text.slice(0, 400).includes(placebookMark)) return [];
  const code = codeAlone(document.text, file.syntax);
  const fact = (kind: 'call' | 'placement-use', at: number, value: string, more: Partial<Fact>): Fact[] => {
    const variants = file.variants.filter((variant) => file.compiled(variant, at) !== 'no');
    const place = placeAt(file.path, document, { start: at, end: at + value.length });
    if (variants.length === 0) return [];
    return [
      {
        kind,
        network: null,
        platform: file.platform,
        module: file.module,
        variants,
        value,
        place,
        chain: [{ what: 'code', value, place }],
        ...more,
      },
    ];
  };
  const calls = profiles
    .filter((profile) => profile[file.platform])
    .flatMap((profile) => callsOf(profile, language))
    .flatMap(({ network, call, does }) =>
      places(code, call, /^\s*[({]/).flatMap((at) => fact('call', at, call, { network, name: does })),
    );
  const uses = Object.keys(title?.placements ?? {}).flatMap((placement) => {
    const name = `Placebook.${camelCase(placement)}`;
    return places(code, name, /^(?![A-Za-z0-9_])/).flatMap((at) =>
      fact('placement-use', at, name, { placement, name: placement }),
    );
  });
  return [...calls, ...uses];
}

/** Where a dotted name stands in code as a whole name, and what follows it fits. */
function places(code: string, name: string, after: RegExp): number[] {
  const found: number[] = [];
  for (let at = code.indexOf(name); at >= 0; at = code.indexOf(name, at + name.length)) {
    const before = code[at - 1] ?? '';
    const end = at + name.length;
    if (!/[A-Za-z0-9_$.]/.test(before) && after.test(code.slice(end, end + 40))) found.push(at);
  }
  return found;
}
