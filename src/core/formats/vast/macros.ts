import { escapeUrl } from '../../text/escape-url.js';

/** The macros of VAST 4.2 that a rehearsed player has a value for. */
const known = [
  'ADCOUNT',
  'ADPLAYHEAD',
  'ADSERVINGID',
  'ASSETURI',
  'CACHEBUSTING',
  'CONTENTPLAYHEAD',
  'ERRORCODE',
  'MEDIAMIME',
  'MEDIAPLAYHEAD',
  'PLAYERSTATE',
  'PODSEQUENCE',
  'TIMESTAMP',
  'UNIVERSALADID',
  'VASTVERSIONS',
] as const;
export type KnownMacro = (typeof known)[number];

/** Those that it has none for: they become -1, as the standard asks. */
const withoutValue = new Set(
  'ADCATEGORIES ADTYPE APIFRAMEWORKS APPBUNDLE BLOCKEDADCATEGORIES BREAKMAXADLENGTH BREAKMAXADS BREAKMAXDURATION BREAKMINADLENGTH BREAKMINDURATION BREAKPOSITION CLICKPOS CLICKTYPE CLIENTUA CONTENTID CONTENTURI DEVICEIP DEVICEUA DOMAIN EXTENSIONS GDPRCONSENT IFA IFATYPE INVENTORYSTATE LATLONG LIMITADTRACKING OMIDPARTNER PAGEURL PLACEMENTTYPE PLAYERCAPABILITIES PLAYERSIZE REASON REGULATIONS SERVERSIDE SERVERUA TRANSACTIONID VERIFICATIONVENDORS'.split(
    ' ',
  ),
);

/** What a macro may look like: `[NAME]`, also with its brackets escaped. */
const written = /(?:\[|%5B)([A-Z][A-Z0-9_]{1,40})(?:\]|%5D)/gi;

/** What looks like a macro of somebody's server, which no player fills: `%%NAME%%`, `${NAME}`, `{{name}}`, `__NAME__`. */
const foreign = /%%[A-Za-z_]{2,40}%%|\$\{[A-Za-z_.]{2,40}\}|\{\{[A-Za-z_. ]{2,40}\}\}|__[A-Z][A-Z_]{1,40}__/g;

export type MacroValues = Partial<Record<KnownMacro, string>>;

/** An address with its macros filled. What the player has no value for becomes -1; what is no macro of VAST stays. */
export function fillMacros(url: string, values: MacroValues): string {
  return url.replace(written, (whole, name: string) => {
    const macro = name.toUpperCase();
    const value = (known as readonly string[]).includes(macro) ? values[macro as KnownMacro] : undefined;
    if (value !== undefined) return escapeUrl(value);
    return (known as readonly string[]).includes(macro) || withoutValue.has(macro) ? '-1' : whole;
  });
}

/** The macros of an address that nobody fills, and those that this player has no value for. */
export function unfilledMacros(url: string): { unknown: string[]; withoutValue: string[] } {
  const names = [...url.matchAll(written)].map(([whole, name = '']) => ({
    whole,
    macro: name.toUpperCase(),
  }));
  const isKnown = (macro: string) => (known as readonly string[]).includes(macro);
  const unknown = names.filter(({ macro }) => !isKnown(macro) && !withoutValue.has(macro));
  return {
    unknown: [...new Set([...unknown.map(({ whole }) => whole), ...(url.match(foreign) ?? [])])],
    withoutValue: [
      ...new Set(names.filter(({ macro }) => withoutValue.has(macro)).map(({ whole }) => whole)),
    ],
  };
}
