import { readPattern } from '../text/patterns.js';
import { platformShapeOf, shapeOf, type Shape } from './shapes.js';
import { platformNames } from '../words/names.js';
import * as z from 'zod';
import type { Declared } from '../facts/declared.js';
import { Format, Platform, Slug, type Platform as PlatformName } from '../words/words.js';

const idsPerPlatform = (description: string) =>
  z.partialRecord(Platform, z.string().min(3).max(200)).default({}).meta({ description });

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
    app: idsPerPlatform(
      'An app ID per platform that shows what such IDs look like: one of your own will do.',
    ),
    unit: idsPerPlatform('A unit ID per platform that shows what such IDs look like.'),
    'app-samples': idsPerPlatform('The app ID per platform that the network gives out for testing.'),
    'unit-samples': idsPerPlatform('The unit ID per platform that the network gives out for testing.'),
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
  const hasApp =
    Object.keys({ ...answers.app, ...answers['app-samples'] }).length > 0 ||
    !!answers['manifest-key'] ||
    !!answers['plist-key'];
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

function idKind(kind: 'app' | 'unit', label: string, scope: string, answers: ProfileAnswers): string[] {
  const { [kind]: examples, platforms, formats, id } = answers;
  const samples = answers[kind === 'app' ? 'app-samples' : 'unit-samples'];
  const known = platforms.flatMap((platform) => [examples[platform] ?? [], samples[platform] ?? []].flat());
  const [android, ios] = [examples.android ?? samples.android, examples.ios ?? samples.ios];
  const perPlatform = android && ios ? platformShapeOf(android, ios) : null;
  const all = perPlatform && known.every((one) => readPattern(perPlatform.pattern).matches(one));
  const shape: Shape =
    (all ? perPlatform : null) ??
    (known.length > 0 ? shapeOf(known) : { pattern: `${id}-${kind}-[0-9]{8}`, needles: [`${id}-${kind}-`] });
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
    ...needleLines(shape),
    ...sampleLines(kind, samples, { platforms, formats }),
  ];
}

function needleLines({ needles }: Shape): string[] {
  if (needles.length > 0)
    return [
      '    # A text that every such ID contains; files without it are not searched.',
      `    needles: [${needles.map(quoted).join(', ')}]`,
    ];
  return [
    '    # No text is in every such ID: they count where a place or a call takes them, and where they are on record.',
  ];
}

/** The IDs for testing, where they are known: an ID of one's own is none, because it earns and is closed for clicks. */
function sampleLines(
  kind: 'app' | 'unit',
  samples: Partial<Record<PlatformName, string>>,
  { platforms, formats }: Pick<ProfileAnswers, 'platforms' | 'formats'>,
): string[] {
  const given = platforms.flatMap((platform) => {
    const sample = samples[platform];
    return sample === undefined ? [] : [{ platform, sample }];
  });
  if (given.length === 0)
    return [
      '    # LOOK UP: the IDs that the network gives out for testing. Until they are here, test IDs come from the roster.',
      `    #   samples: { ${platforms.map((platform) => `${platform}: ID`).join(', ')} }`,
    ];
  return [
    '    # The IDs that the network gives out for testing.',
    '    samples:',
    ...given.map(({ platform, sample }) =>
      kind === 'app'
        ? `      ${platform}: ${quoted(sample)}`
        : `      ${platform}: { ${formats.map((format) => `${format}: ${quoted(sample)}`).join(', ')} }`,
    ),
  ];
}

/** Why a network needs a permission, as far as its name tells. */
function reasonFor(permission: string, name: string): string {
  return /\.(INTERNET|ACCESS_NETWORK_STATE)$/.test(permission)
    ? 'Ads are fetched over the network.'
    : quoted(`LOOK UP: what ${name} needs it for.`);
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
        (permission) => `    - { name: ${permission}, why: ${reasonFor(permission, name)} }`,
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
