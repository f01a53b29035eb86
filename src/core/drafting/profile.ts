import { readPattern } from '../text/patterns.js';
import { platformNames } from '../words/names.js';
import * as z from 'zod';
import type { Declared } from '../facts/declared.js';
import { Format, Platform, Slug, type Platform as PlatformName } from '../words/words.js';

/** What a person knows of a network when they begin: the answers that a profile is drafted from. */
export const ProfileAnswers = z
  .strictObject({
    id: Slug,
    name: z.string().min(2).max(60),
    about: z.string().min(8).max(400).optional(),
    platforms: z
      .array(Platform)
      .min(1)
      .default([...platformNames]),
    formats: z.array(Format).min(1).default(['banner']),
    app: z
      .partialRecord(Platform, z.string().min(3).max(200))
      .default({})
      .meta({ description: 'An app ID per platform that the network gives out for testing.' }),
    unit: z
      .partialRecord(Platform, z.string().min(3).max(200))
      .default({})
      .meta({ description: 'A unit ID per platform that the network gives out for testing.' }),
    'manifest-key': z.string().min(3).max(200).optional(),
    'plist-key': z.string().min(3).max(200).optional(),
    dependencies: z.array(z.string().min(3).max(200)).default([]),
    repositories: z.array(z.url()).default([]),
    pods: z.array(z.string().min(1).max(200)).default([]),
    permissions: z.array(z.string().min(1).max(200)).default([]),
  })
  .meta({ description: 'The answers that a profile is drafted from.' });
export type ProfileAnswers = z.infer<typeof ProfileAnswers>;

/** Answers as far as a tree gives them. */
export function answersFrom(stem: string, declared: readonly Declared[]): z.input<typeof ProfileAnswers> {
  const of = (kind: Declared['kind']) => declared.filter((item) => item.kind === kind);
  const plain = (item: Declared | undefined) =>
    item && /^[\w:./-]{6,200}$/.test(item.value) && /\d/.test(item.value) ? item.value : undefined;
  const [key] = of('meta-data');
  const [plistKey] = of('plist-key');
  const platforms = [...new Set(declared.map(({ platform }) => platform))].sort();
  const app = { android: plain(key), ios: plain(plistKey) };
  return {
    id: stem.replace(/[^a-z0-9-]/g, '') || 'network',
    name: stem.charAt(0).toUpperCase() + stem.slice(1),
    platforms: platforms.length > 0 ? platforms : [...platformNames],
    app: {
      ...(app.android ? { android: app.android } : {}),
      ...(app.ios ? { ios: app.ios } : {}),
    },
    ...(key ? { 'manifest-key': key.name } : {}),
    ...(plistKey ? { 'plist-key': plistKey.name } : {}),
    dependencies: of('dependency').map(({ name, value }) => `${name}:${value || '1.0.0'}`),
    repositories: of('repository').map(({ name }) => name),
    pods: of('pod').map(({ name, value }) => `${name}:${value || '1.0'}`),
  };
}

/**
 * A profile as YAML, with comments that say what to look up and where it goes. What the answers leave open is
 * drafted so that the profile is valid and nothing real matches it.
 */
export function draftProfile(answers: ProfileAnswers): string {
  const { id, name, platforms, formats } = answers;
  const about = answers.about ?? `${name}: say in one line what it sells and how its IDs are handed over.`;
  const hasApp = Object.keys(answers.app).length > 0 || !!answers['manifest-key'] || !!answers['plist-key'];
  const parts = [
    '# yaml-language-server: $schema=http://127.0.0.1:4870/api/v1/schemas/profile',
    `# ${name}: a draft. What is marked LOOK UP comes from the network's integration page.`,
    'profile: 1',
    `id: ${id}`,
    `name: ${quoted(name)}`,
    `about: ${quoted(about)}`,
    '',
    '# The kinds of ID that the network gives out. A pattern describes the whole ID; name the part that holds',
    '# your account (?<account>…) and the part that tells the platform (?<platform>…), if there are such.',
    'ids:',
    ...(hasApp ? idKind('app', 'app ID', 'edition', answers) : []),
    ...idKind('unit', 'unit ID', 'placement', answers),
    '',
    '# The formats that the network offers; bounds of settings are written here, such as',
    '#   banner: { refresh: { min: 30s, max: 120s }, content: [text, image] }',
    'formats:',
    ...formats.map((format) => `  ${format}: {}`),
    '',
    '# LOOK UP: how long a new unit may take until it serves.',
    'serving-delay: 1h',
    ...platforms.flatMap((platform) => ['', ...needs(platform, answers, hasApp)]),
  ];
  return `${parts.join('\n')}\n`;
}

function idKind(
  kind: 'app' | 'unit',
  label: string,
  scope: string,
  { [kind]: given, platforms, formats, id }: ProfileAnswers,
): string[] {
  const known = platforms.flatMap((platform) => given[platform] ?? []);
  const perPlatform = given.android && given.ios ? platformShapeOf(given.android, given.ios) : null;
  const shape: Shape =
    perPlatform ??
    (known.length > 0 ? shapeOf(known) : { pattern: `${id}-${kind}-[0-9]{8}`, needles: [`${id}-${kind}-`] });
  const sample = (platform: PlatformName) =>
    given[platform] ?? known[0] ?? `${id}-${kind}-0000000${platform === 'android' ? 1 : 2}`;
  const open = known.length === 0 ? ['    # LOOK UP: an example of the ID, and its shape.'] : [];
  return [
    `  ${kind}:`,
    ...open,
    `    label: ${label}`,
    `    scope: ${scope}`,
    ...(known.length > 0
      ? [`    # Made from ${known.join(' and ')}: check that your own IDs have this shape.`]
      : []),
    `    pattern: ${quoted(shape.pattern)}`,
    ...(shape.platforms
      ? [`    platforms: { ${shape.platforms.android}: android, ${shape.platforms.ios}: ios }`]
      : []),
    `    # A text that every such ID contains; files without it are not searched.`,
    `    needles: [${shape.needles.map(quoted).join(', ')}]`,
    `    # The IDs that the network gives out for testing.`,
    '    samples:',
    ...platforms.map((platform) =>
      kind === 'app'
        ? `      ${platform}: ${quoted(sample(platform))}`
        : `      ${platform}: { ${formats.map((format) => `${format}: ${quoted(sample(platform))}`).join(', ')} }`,
    ),
  ];
}

/** What IDs look like, as far as examples tell. */
interface Shape {
  pattern: string;
  needles: string[];
  /** The part that tells the platforms apart, where there is such a part. */
  platforms?: { android: string; ios: string };
}

/**
 * The shape of IDs of which one is for Android and one for iOS: where they are alike but for one short word, that
 * word is what tells the platform.
 */
export function platformShapeOf(android: string, ios: string): Shape | null {
  const [left, right] = [android, ios].map((id) => id.match(/[A-Za-z0-9]+|[^A-Za-z0-9]+/g) ?? []);
  if (!left || !right || left.length !== right.length) return null;
  const odd = left.flatMap((part, at) => {
    const other = right[at] ?? '';
    const isCode = part !== other && [part, other].every((word) => /^[A-Za-z]{1,3}$/.test(word));
    return isCode ? [at] : [];
  });
  const [at] = odd;
  if (at === undefined || odd.length > 1 || at === 0) return null;
  const head = left.slice(0, at).join('');
  if (head !== right.slice(0, at).join('')) return null;
  const codes = { android: left[at] ?? '', ios: right[at] ?? '' };
  const rests = [left, right].map((parts) => runs(parts.slice(at + 1).join('')));
  if (rests[0] !== rests[1]) return null;
  const needles = head.length >= 3 ? [head] : [`${head}${codes.android}`, `${head}${codes.ios}`];
  if (needles.some(({ length }) => length < 3)) return null;
  return {
    pattern: `${escaped(head)}(?<platform>${codes.android}|${codes.ios})${rests[0] ?? ''}`,
    needles,
    platforms: codes,
  };
}

/**
 * The shape that examples share: what is the same in all stands as it is, the rest by kind and length. Examples
 * that do not even begin alike are alternatives, each with a needle of its own.
 */
export function shapeOf(examples: readonly string[]): Shape {
  const [first = ''] = examples;
  let common = 0;
  while (common < first.length && examples.every((example) => example[common] === first[common])) common++;
  if (common < 3 && examples.length > 1) {
    const shapes = examples.map((example) => shapeOf([example]));
    return {
      pattern: [...new Set(shapes.map(({ pattern }) => pattern))].join('|'),
      needles: [...new Set(shapes.flatMap(({ needles }) => needles))],
    };
  }
  // What several examples share up to a separator is in every ID; one alone shows no more than its first word.
  const shared =
    examples.length > 1
      ? /^[A-Za-z0-9]+(?:[^A-Za-z0-9]+[A-Za-z0-9]+)*[^A-Za-z0-9]+/.exec(first.slice(0, common))?.[0]
      : /^[A-Za-z][A-Za-z0-9]*[^A-Za-z0-9]+/.exec(first)?.[0];
  const needle = shared && shared.length >= 3 ? shared : first.slice(0, Math.min(4, Math.max(3, common)));
  const rests = [...new Set(examples.map((example) => runs(example.slice(needle.length))))];
  const fits = rests.find((rest) =>
    examples.every((one) => readPattern(`${escaped(needle)}${rest}`).matches(one)),
  );
  const lengths = examples.map(({ length }) => length - needle.length);
  const any = `[A-Za-z0-9._:~/-]{${Math.min(...lengths)},${Math.max(...lengths)}}`;
  return { pattern: `${escaped(needle)}${fits ?? any}`, needles: [needle] };
}

function escaped(text: string): string {
  return text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');
}

/** A text run by run, each as a class of its kind with its length; words of one or two letters stand for themselves. */
function runs(text: string): string {
  return (text.match(/[A-Za-z0-9]+|[^A-Za-z0-9]+/g) ?? [])
    .map((word) => (/^[A-Za-z]{1,2}$/.test(word) ? word : classes(word)))
    .join('');
}

function classes(text: string): string {
  const found = text.match(/[0-9]+|[a-f0-9]+(?![A-Za-z])|[A-Z0-9]+(?![a-z])|[A-Za-z0-9]+|[^A-Za-z0-9]+/g);
  return (found ?? [])
    .map((run) => {
      if (/^[^A-Za-z0-9]+$/.test(run)) return escaped(run);
      const kinds: [RegExp, string][] = [
        [/^\d+$/, '[0-9]'],
        [/^[a-f0-9]+$/, '[0-9a-f]'],
        [/^[A-Z0-9]+$/, '[A-Z0-9]'],
        [/^[a-z0-9]+$/, '[a-z0-9]'],
      ];
      const kind = kinds.find(([shape]) => shape.test(run))?.[1] ?? '[A-Za-z0-9]';
      return `${kind}{${run.length}}`;
    })
    .join('');
}

function needs(platform: PlatformName, answers: ProfileAnswers, hasApp: boolean): string[] {
  const { id, name } = answers;
  const key = platform === 'android' ? answers['manifest-key'] : answers['plist-key'];
  const slug = id.replace(/-/g, '_');
  const lines = [`${platform}:`];
  if (hasApp && key)
    lines.push(
      '  app-id:',
      `    place: ${platform === 'android' ? 'manifest' : 'plist'}`,
      `    key: ${quoted(key)}`,
      platform === 'android' ? `    resource: ${slug}_app_id` : `    setting: ${slug.toUpperCase()}_APP_ID`,
      `    why: ${quoted(`LOOK UP: what ${name} does when the app ID is missing.`)}`,
    );
  else if (hasApp)
    lines.push(
      `  app-id: { place: code, why: ${quoted(`LOOK UP: where ${name} wants its app ID on ${platform}.`)} }`,
    );
  if (platform === 'android') {
    lines.push(
      '  permissions:',
      ...(answers.permissions.length > 0 ? answers.permissions : ['android.permission.INTERNET']).map(
        (permission) => `    - { name: ${permission}, why: Ads are fetched over the network. }`,
      ),
    );
    if (answers.repositories.length > 0)
      lines.push(
        '  repositories:',
        ...answers.repositories.map(
          (url) => `    - { url: ${quoted(url)}, why: The SDK is published there. }`,
        ),
      );
    if (answers.dependencies.length > 0)
      lines.push(
        '  dependencies:',
        ...answers.dependencies.map((text) => {
          const [group = '', artifact = '', version = '1.0.0'] = text.split(':');
          return `    - { coordinate: ${quoted(`${group}:${artifact}`)}, version: ${quoted(version)}, why: The SDK itself. }`;
        }),
      );
  } else if (answers.pods.length > 0)
    lines.push(
      '  pods:',
      ...answers.pods.map((text) => {
        const at = text.lastIndexOf(':');
        const [pod, version] = at > 0 ? [text.slice(0, at), text.slice(at + 1)] : [text, '1.0'];
        return `    - { name: ${quoted(pod)}, version: ${quoted(version)}, why: The SDK itself. }`;
      }),
    );
  return lines.length > 1 ? lines : [`${platform}: {}`];
}

function quoted(text: string): string {
  return `'${text.replace(/'/g, "''")}'`;
}
