import type { ReadProblem, Span } from '../text/problem.js';
import { formatNames } from '../words/names.js';
import type { Settings } from '../words/settings.js';
import type { Format } from '../words/words.js';
import { givenFields, placebookFields } from '../languages/common/fields.js';

/** A placement in a placebook: its settings in words, such as `refreshSeconds 60, anchor bottom`. */
export interface PlacebookEntry extends Span {
  placement: string;
  settings: string;
  /** Undefined where it names none of the known formats. */
  format: Format | undefined;
  /** The settings by the names of the fields, as they are written. */
  fields: Record<string, string>;
}

/** Where a placement begins in the placebooks of each language. */
const beginning = /(?:\bname(?: =|:) |new Builder\(|@"name" : @)["']([a-z0-9-]{1,100})["']/g;

const formatWord = new RegExp(`["'](${formatNames.join('|')})["']`);

/** The networks to try differ by what is wired on a platform, so their order is no setting to compare. */
const names = placebookFields.map(({ name }) => name).filter((name) => name !== 'fallback');

const field = new RegExp(
  String.raw`(?:^|[\s.,(])(?:@")?(${names.join('|')})(?:"? :| =|:|\() ?` +
    String.raw`(@?"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|(?:listOf|Arrays\.asList)\([^)]*\)|new\[\] \{[^}]*\}|@?\[[^\]]*\]|@?-?\w+)`,
  'g',
);

/** What a placebook says of its placements, in whichever language it is written. */
export function readPlacebook(text: string): { entries: PlacebookEntry[]; problems: ReadProblem[] } {
  const starts = [...text.matchAll(beginning)];
  const entries = starts.map((start, at): PlacebookEntry => {
    const from = start.index + start[0].length;
    const next = starts[at + 1]?.index ?? text.length;
    const close = /\n[ \t]*(?:\)[ \t]*[\r\n]|\.build\(\);|\})/.exec(text.slice(from, next));
    const body = text.slice(from, close ? from + close.index : next);
    const given = [...body.matchAll(field)].map(([, name = '', raw = '']) => [name, plain(raw)] as const);
    return {
      placement: start[1] ?? '',
      settings: inWords(given),
      format: formatNames.find((name) => name === formatWord.exec(body)?.[1]),
      fields: Object.fromEntries(given),
      start: start.index,
      end: from,
    };
  });
  return { entries, problems: [] };
}

/** A value without what the language puts around it. */
function plain(raw: string): string {
  const unwrapped = raw.replace(
    /^(?:listOf|Arrays\.asList)\(|\)$|^new\[\] \{\s*|\s*\}$|^@?\[\s*|\s*\]$/g,
    '',
  );
  const items = unwrapped.match(/@?"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*'|[^,\s]+/g) ?? [];
  const value = items
    .map((item) =>
      item
        .replace(/^@?["']|["']$/g, '')
        .replace(/\\(.)/g, '$1')
        .replace(/^@/, ''),
    )
    .join(' and ');
  return { YES: 'true', NO: 'false' }[value] ?? value;
}

/** The settings of a placement as a current placebook gives them. */
export function settingsInWords(settings: Settings): string {
  const { fallback: _, ...rest } = settings;
  const given = givenFields(rest, (value) => (Array.isArray(value) ? value.join(' and ') : String(value)));
  return inWords(given.map(({ name, text }) => [name, text] as const));
}

function inWords(given: readonly (readonly [string, string])[]): string {
  const sorted = [...given].sort(([a], [b]) => names.indexOf(a) - names.indexOf(b));
  return sorted.map(([name, value]) => `${name} ${value}`).join(', ') || 'no settings';
}
