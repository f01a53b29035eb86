import type { Declared } from '../facts/declared.js';
import type { Profile } from '../network/model.js';

/** Declarations that seem to belong together: one vendor's, by the word that their names share. */
export interface Unclaimed {
  /** The word, in small letters; it becomes the ID of a drafted profile. */
  stem: string;
  declared: Declared[];
}

/** Names that the platforms themselves, their build tools and the frameworks that apps are written in use. */
const ofThePlatform = {
  'meta-data':
    /^(android|androidx|com\.android|flutterEmbedding|io\.flutter|com\.facebook\.(react|soloader)|expo|unity|unityplayer)\b/,
  'plist-key':
    /^(CF|UI|NS|LS|ITS|CA|BG|MK|SK|WK|GC|AR|HK|NF|PH|UT|VS|XP|DT|MIN|CADisable|AppIdentifierPrefix|App Transport)/,
  dependency:
    /^(androidx|android|com\.android|org\.jetbrains|junit|org\.junit|io\.flutter|dev\.flutter|com\.facebook\.(react|fresco|soloader|yoga|flipper|hermes|fbjni)|host\.exp|expo|com\.unity3d|org\.apache|com\.squareup|io\.reactivex|io\.ktor|com\.google\.(dagger|code\.gson|guava)|org\.mockito|io\.mockk|org\.robolectric)\b|\.(material|react|flutter)\b/,
  pod: /^(React|RCT|Flutter|Expo|EX[A-Z]|RN[A-Z]|Yoga|hermes-engine|glog|boost|fmt$|DoubleConversion|RCT-Folly|FBLazyVector|SocketRocket|UnityFramework)/,
  package: /^Swift(Protobuf|Collections|Algorithms|Nio|Log)?$/i,
  repository: /^$/,
} as const;

/** What a tree declares that neither the platform nor any known profile claims, grouped by vendor. */
export function unclaimed(declared: readonly Declared[], profiles: readonly Profile[]): Unclaimed[] {
  const claimed = claims(profiles);
  const open = declared.filter(
    ({ kind, name }) => !ofThePlatform[kind].test(name) && !claimed.has(`${kind} ${name}`),
  );
  const stems = new Map<string, Declared[]>();
  const put = (stem: string | undefined, item: Declared) => {
    if (stem) stems.set(stem, [...(stems.get(stem) ?? []), item]);
  };
  for (const item of open)
    if (item.kind === 'meta-data' || item.kind === 'dependency') put(stemOf(item.name), item);
  for (const item of open) {
    if (item.kind !== 'pod' && item.kind !== 'plist-key' && item.kind !== 'package') continue;
    const words = camelWords(item.name);
    const flat = words.join('');
    const known = [...stems.keys()].find((stem) => flat.includes(stem));
    put(known ?? words.slice(0, words.length > 2 ? 2 : 1).join(''), item);
  }
  // A repository tells of a vendor only together with something that comes from it.
  for (const item of open) {
    if (item.kind !== 'repository') continue;
    put(
      [...stems.keys()].find((stem) => item.name.toLowerCase().includes(stem)),
      item,
    );
  }
  return [...stems]
    .map(([stem, items]) => ({ stem, declared: items }))
    .sort((a, b) => b.declared.length - a.declared.length || (a.stem < b.stem ? -1 : 1));
}

function claims(profiles: readonly Profile[]): Set<string> {
  const names = profiles.flatMap(({ android, ios }) => [
    ...(android?.['app-id'] && 'key' in android['app-id'] ? [`meta-data ${android['app-id'].key}`] : []),
    ...(ios?.['app-id'] && 'key' in ios['app-id'] ? [`plist-key ${ios['app-id'].key}`] : []),
    ...(android?.dependencies ?? []).map(({ coordinate }) => `dependency ${coordinate}`),
    ...(android?.repositories ?? []).map(({ url }) => `repository ${url}`),
    ...(ios?.keys ?? []).map(({ key }) => `plist-key ${key}`),
    ...(ios?.pods ?? []).map(({ name }) => `pod ${name}`),
    ...(ios?.packages ?? []).map(({ product }) => `package ${product}`),
  ]);
  return new Set(names);
}

/** The vendor's word of a reversed domain: `example.brightwell.ads.KEY` gives `brightwell`. */
function stemOf(name: string): string | undefined {
  const parts = name.split(':')[0]?.split('.') ?? [];
  return (parts.length > 1 ? parts[1] : parts[0])?.toLowerCase();
}

function camelWords(name: string): string[] {
  return name
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .split(/[^A-Za-z0-9]+/)
    .filter(Boolean)
    .map((word) => word.toLowerCase());
}
