import { valueAt } from '../../../text/own-values.js';
import { attribute, descendants, elements } from '../../../formats/xml/query.js';
import { readXml } from '../../../formats/xml/read.js';
import type { XmlAttribute, XmlElement } from '../../../formats/xml/model.js';
import type { Span } from '../../../text/problem.js';
import type { HeldAt } from '../../../words/names.js';
import type { Format, Platform } from '../../../words/words.js';
import { mergeVariants } from '../../../facts/merge.js';
import type { CodePlace } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { withPlacements } from '../../../roster/variant-stages.js';
import type { TextDocument } from '../../../text/document.js';
import { markupUses } from './markup-uses.js';
import type { Tree } from '../../../tree/tree.js';
import type { SurveyContext } from '../../../roster/survey-context.js';

/** A text of markup: for one platform, for all that are not named beside it, or for every one. */
interface MarkupText extends Span {
  value: string;
  for: Platform | 'default' | 'other' | null;
}

/** Texts that are chosen between by platform, or a single one. */
interface MarkupChoice extends Span {
  texts: MarkupText[];
  byPlatform: boolean;
}

const platformOf: Record<string, MarkupText['for']> = { android: 'android', ios: 'ios', default: 'default' };

function whom(name: string): MarkupText['for'] {
  return valueAt(platformOf, name.trim().toLowerCase()) ?? 'other';
}

/**
 * `{OnPlatform Android=…, iOS='…', Default=…}` of an attribute (learn.microsoft.com, "OnPlatform markup extension").
 */
function inAttribute({ value, valueSpan }: XmlAttribute, written: string): MarkupChoice {
  const found = /^\s*\{\s*OnPlatform\b([\s\S]*)\}\s*$/.exec(value);
  if (!found || written !== value)
    return {
      ...valueSpan,
      byPlatform: false,
      texts: [{ value: value.trim(), for: null, ...trimmed(written, valueSpan) }],
    };
  const inner = found[1] ?? '';
  const offset = valueSpan.start + value.indexOf(inner, value.indexOf('OnPlatform'));
  const texts = [...inner.matchAll(/(?:(\w+)\s*=\s*)?(?:'([^']*)'|([^\s,'={}]+))\s*(?:,|$)/g)].map(
    (match): MarkupText => {
      const text = match[2] ?? match[3] ?? '';
      const at = offset + match.index + match[0].indexOf(text, (match[1]?.length ?? 0) + 0);
      return {
        value: text,
        for: match[1] === undefined ? 'default' : whom(match[1]),
        start: at,
        end: at + text.length,
      };
    },
  );
  return { ...valueSpan, byPlatform: true, texts };
}

function trimmed(written: string, { start }: Span): Span {
  const from = start + (/^\s*/.exec(written)?.[0].length ?? 0);
  return { start: from, end: from + written.trim().length };
}

/** `<OnPlatform><On Platform="Android" Value="…" /></OnPlatform>`, or with the platforms as attributes. */
function inElement(element: XmlElement, text: string): MarkupChoice {
  const of = (given: XmlAttribute, platform: MarkupText['for']): MarkupText => ({
    value: given.value.trim(),
    for: platform,
    ...trimmed(text.slice(given.valueSpan.start, given.valueSpan.end), given.valueSpan),
  });
  const own = element.attributes.flatMap((given) => {
    const platform = whom(given.name);
    return platform === 'other' ? [] : [of(given, platform)];
  });
  const below = elements(element, 'On').flatMap((on) => {
    const value = attribute(on, 'Value');
    const names = attribute(on, 'Platform')?.value.split(',') ?? [];
    return value ? names.map((name) => of(value, whom(name))) : [];
  });
  return { start: element.start, end: element.end, byPlatform: true, texts: [...own, ...below] };
}

function choicesIn(root: XmlElement, text: string): MarkupChoice[] {
  return [...descendants(root)].flatMap((element) => {
    if (element.name === 'OnPlatform') return [inElement(element, text)];
    if (element.name === 'On' && element.parent?.name === 'OnPlatform') return [];
    return element.attributes.map((given) =>
      inAttribute(given, text.slice(given.valueSpan.start, given.valueSpan.end)),
    );
  });
}

/** Unit IDs that markup gives its views, for each platform that it names. */
export function markupFacts(
  tree: Tree,
  paths: readonly string[],
  editions: readonly SurveyEdition[],
  context: SurveyContext,
): Fact[] {
  const facts = paths.flatMap((path) => {
    const document = tree.text(path);
    const root = tree.read(path, readXml)?.root;
    if (!document || !root) return [];
    const given = choicesIn(root, document.text).flatMap((choice) =>
      editions.flatMap((edition) => factsFor({ path, document, choice, edition, context })),
    );
    const views = [...descendants(root)].flatMap((element) =>
      editions.flatMap((edition) => viewFacts({ path, document, root, element, edition, context })),
    );
    return [...given, ...views, ...markupUses(path, document, root, editions, context)];
  });
  return mergeVariants(withPlacements(facts, context.title));
}

/** A view of a network in markup: the call that it stands for, its arguments, and where it is anchored. */
function viewFacts({
  path,
  document,
  root,
  element,
  edition: { platform, module, variants },
  context,
}: {
  path: string;
  document: TextDocument;
  root: XmlElement;
  element: XmlElement;
  edition: SurveyEdition;
  context: SurveyContext;
}): Fact[] {
  const name = localName(element);
  return context.profiles.flatMap((profile) =>
    Object.entries(profile.code.csharp?.formats ?? {}).flatMap(([format, { view }]): Fact[] => {
      if (view?.call !== name || !profile[platform]) return [];
      const given = unitGiven(element, view.id, document.text);
      const ids = given.texts.filter((text) => isFor(text, platform, given.texts)).map(({ value }) => value);
      const place = placeAt(path, document, element.openTag);
      const around = [...containers(element)].some((one) => localName(one) === 'DataTemplate');
      return [
        {
          kind: 'call',
          network: profile.id,
          platform,
          module,
          variants: variants.map((variant) => variant.name),
          value: name,
          action: 'view',
          format: format as Format,
          anchor: heldAt(element) ?? 'own-component',
          effective: true,
          code: {
            type: null,
            methods: [localName(root), ...(around ? ['DataTemplate'] : [])],
            conditions: [],
            argument: { written: given.written, ids },
          },
          place,
          chain: [{ what: 'markup', value: name, place }],
        },
      ];
    }),
  );
}

function localName({ name }: XmlElement): string {
  return name.split(':').at(-1) ?? name;
}

function* containers(element: XmlElement): Generator<XmlElement> {
  for (let at = element.parent; at; at = at.parent) yield at;
}

/** What the unit of a view is set to, as an attribute or as an element of its own. */
function unitGiven(
  element: XmlElement,
  id: number | string | undefined,
  text: string,
): { written: string; texts: MarkupText[] } {
  const as = typeof id === 'string' ? id : '';
  const own = attribute(element, as);
  if (own) {
    const written = text.slice(own.valueSpan.start, own.valueSpan.end);
    return { written, texts: inAttribute(own, written).texts };
  }
  const below = elements(element, `${element.name}.${as}`).flatMap((one) => elements(one, 'OnPlatform'));
  return { written: '', texts: below.flatMap((one) => inElement(one, text).texts) };
}

/** Whether a text of a choice is the one that a platform gets. */
function isFor(text: MarkupText, platform: Platform, all: readonly MarkupText[]): boolean {
  if (text.for === platform) return true;
  const others = text.for === 'default' || text.for === null;
  return others && !all.some((one) => one.for === platform);
}

/** Views whose contents scroll (learn.microsoft.com, ".NET MAUI controls"). */
const scrolling = /^(?:ScrollView|CollectionView|ListView|CarouselView|TableView)$/;

/** Where a view is held: by its own options, or by the row of the grid that it is in. */
function heldAt(element: XmlElement): HeldAt | undefined {
  if ([...containers(element)].some((one) => scrolling.test(localName(one)))) return 'scrolling-view';
  const options = attribute(element, 'VerticalOptions')?.value.trim();
  if (options === 'End') return 'bottom-edge';
  if (options === 'Start') return 'top-edge';
  const rows = element.parent && attribute(element.parent, 'RowDefinitions')?.value.split(',');
  if (!rows || rows.length < 2) return undefined;
  const row = Number(attribute(element, 'Grid.Row')?.value ?? 0);
  return row === rows.length - 1 ? 'bottom-edge' : row === 0 ? 'top-edge' : 'no-edge';
}

function factsFor({
  path,
  document,
  choice,
  edition: { platform, module, variants },
  context,
}: {
  path: string;
  document: TextDocument;
  choice: MarkupChoice;
  edition: SurveyEdition;
  context: SurveyContext;
}): Fact[] {
  const idsOf = ({ value }: MarkupText) =>
    context.recogniser.recognise(value).filter(({ kind }) => kind === 'unit');
  const own =
    choice.texts.find((text) => text.for === platform) ??
    choice.texts.find((text) => text.for === 'default' || text.for === null);
  const base = { platform, module, variants: variants.map(({ name }) => name) };
  if (!own) {
    const network = choice.texts.flatMap(idsOf)[0]?.network;
    if (network === undefined) return [];
    const place = placeAt(path, document, choice);
    const value = choice.texts.map((text) => text.for).join(', ');
    const chain = [{ what: 'markup', value: `cases: ${value}`, place }];
    return [{ ...base, kind: 'left-open', network, name: 'choice', value, effective: true, place, chain }];
  }
  const place = placeAt(path, document, own);
  // The branches of one choice are distinguished as those of a condition in code are.
  const conditions: CodePlace['conditions'] = choice.byPlatform
    ? [
        {
          text: `OnPlatform of line ${document.lines.at(choice.start).line} is Android`,
          holds: platform === 'android',
        },
      ]
    : [];
  const code = { type: null, methods: [], conditions };
  return idsOf(own).map(({ network }): Fact => ({
    ...base,
    kind: 'unit-id',
    network,
    value: own.value,
    carrier: 'code',
    effective: true,
    code,
    place,
    chain: [{ what: 'markup', value: own.value, place }],
  }));
}
