import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { setFlagsFromString } from 'node:v8';
import { dialects } from '../../src/core/languages/index.js';
import { Grammars } from '../../src/core/syntax/grammars.js';
import type { Readings } from '../../src/core/tree/readings.js';
import { Tree } from '../../src/core/tree/tree.js';
import { root } from './titles.js';

export { kelp, placement, profileOf, profiles, root } from './titles.js';

// As the service does: compiling grammars again for speed takes longer than all that is read here.
setFlagsFromString('--no-wasm-dynamic-tiering');
setFlagsFromString('--no-wasm-tier-up');

/** Every grammar, loaded. */
export const syntax = new Grammars((file) =>
  readFileSync(
    file === 'tree-sitter.wasm'
      ? join(root, 'node_modules/web-tree-sitter', file)
      : join(root, 'node_modules/tree-sitter-wasms/out', file),
  ),
);
await syntax.load(['ruby', ...dialects.map(({ dialect }) => dialect.syntax.grammar)]);

/** A tree of files given as text (or bytes), as a snapshot would hold it. */
export function treeOf(
  files: Record<string, string | Uint8Array>,
  folders: string[] = [],
  readings?: Readings,
): Tree {
  return new Tree(
    Object.entries(files).map(([path, content]) => {
      const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
      return { path, bytes, hash: createHash('sha256').update(bytes).digest('hex') };
    }),
    { syntax, folders, readings },
  );
}

/** Every file below a folder, by path. */
export function filesBelow(folder: string): Record<string, Buffer> {
  const found: Record<string, Buffer> = {};
  const walk = (at: string, prefix: string) => {
    for (const name of readdirSync(at)) {
      const path = join(at, name);
      if (statSync(path).isDirectory()) walk(path, `${prefix}${name}/`);
      else found[`${prefix}${name}`] = readFileSync(path);
    }
  };
  walk(folder, '');
  return found;
}

export const manifest = (body: string, head = '') => `<?xml version="1.0" encoding="utf-8"?>
<manifest xmlns:android="http://schemas.android.com/apk/res/android">
    <uses-permission android:name="android.permission.INTERNET" />
    <uses-permission android:name="android.permission.ACCESS_NETWORK_STATE" />
${head}
    <application android:label="@string/app_name">
${body}
    </application>
</manifest>
`;

export const appIdMetaData = (value: string) =>
  `        <meta-data android:name="example.cobaltheron.ads.APP_ID" android:value="${value}" />`;

export const gradle = (
  android = '',
  dependencies = `implementation("example.cobaltheron:ads-sdk:6.2.0")`,
) => `plugins {
    id("com.android.application")
    id("org.jetbrains.kotlin.android") version "2.1.0"
}

android {
    namespace = "example.brine.kelp"
    compileSdk = 35

    defaultConfig {
        applicationId = "example.brine.kelp"
        minSdk = 24
    }
${android}
}

dependencies {
    ${dependencies}
}
`;

/** Settings that name the repository of Cobalt Heron. */
export const heronRepository =
  'dependencyResolutionManagement {\n    repositories {\n        google()\n        maven("https://maven.cobaltheron.example/release")\n    }\n}\n';

/** A manifest that names the application class of the small tree. */
export const namingClass = (text: string) =>
  text.replace('<application android:label="@string/app_name"', '$& android:name=".KelpApp"');

/** A small Android tree that is right; give files to change or add. */
export function androidFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const files: Record<string, string | null> = {
    'settings.gradle.kts': `${heronRepository}include(":app")\n`,
    'app/build.gradle.kts': gradle(),
    'app/src/main/java/example/brine/kelp/KelpApp.java':
      'package example.brine.kelp;\n\nclass KelpApp extends Application {\n    public void onCreate() {\n        CobaltHeron.start(this);\n    }\n}\n',
    'app/src/main/AndroidManifest.xml': namingClass(manifest(appIdMetaData('@string/heron'))),
    'app/src/debug/res/values/ids.xml':
      '<resources>\n    <string name="heron">CH-A-100001-SAMPLE0A</string>\n</resources>\n',
    'app/src/release/res/values/ids.xml':
      '<resources>\n    <string name="heron">CH-A-310772-QK4T8W2N</string>\n</resources>\n',
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}

export const attributionItem = (id: string) =>
  `\t\t<dict>\n\t\t\t<key>SKAdNetworkIdentifier</key>\n\t\t\t<string>${id}.skadnetwork</string>\n\t\t</dict>`;

/** An attribution list as the networks of the title want it. */
export const attributionList = ['ch7k2m9td4', 'h3r0nw8ngs', 'm4r1st0n3q'];

export const attributionKey = (ids: readonly string[] = attributionList) =>
  `\t<key>SKAdNetworkItems</key>\n\t<array>\n${ids.map(attributionItem).join('\n')}\n\t</array>`;

export const plist = (entries: string) => `<?xml version="1.0" encoding="UTF-8"?>
<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">
<plist version="1.0">
<dict>
	<key>CFBundleIdentifier</key>
	<string>$(PRODUCT_BUNDLE_IDENTIFIER)</string>
${entries}
</dict>
</plist>
`;

export const appIdKey = (value: string) => `\t<key>CobaltHeronAppID</key>\n\t<string>${value}</string>`;

/** A project file with one application target; settings are given per configuration. */
export const pbxproj = (debug = '', release = '', shared = '') => `// !$*UTF8*$!
{
	archiveVersion = 1;
	objects = {
		AA0000000000000000000001 /* App.swift in Sources */ = {isa = PBXBuildFile; fileRef = AA0000000000000000000002 /* App.swift */; };
		AA0000000000000000000002 /* App.swift */ = {isa = PBXFileReference; lastKnownFileType = sourcecode.swift; path = App.swift; sourceTree = "<group>"; };
		AA0000000000000000000003 = {
			isa = PBXGroup;
			children = (
				AA0000000000000000000004 /* Kelp */,
			);
			sourceTree = "<group>";
		};
		AA0000000000000000000004 /* Kelp */ = {
			isa = PBXGroup;
			children = (
				AA0000000000000000000002 /* App.swift */,
			);
			path = Kelp;
			sourceTree = "<group>";
		};
		AA0000000000000000000005 /* Kelp */ = {
			isa = PBXNativeTarget;
			buildConfigurationList = AA0000000000000000000006;
			buildPhases = (
				AA0000000000000000000007 /* Sources */,
			);
			name = Kelp;
			productType = "com.apple.product-type.application";
		};
		AA0000000000000000000006 = {
			isa = XCConfigurationList;
			buildConfigurations = (
				AA0000000000000000000008 /* Debug */,
				AA0000000000000000000009 /* Release */,
			);
		};
		AA0000000000000000000007 /* Sources */ = {
			isa = PBXSourcesBuildPhase;
			files = (
				AA0000000000000000000001 /* App.swift in Sources */,
			);
		};
		AA0000000000000000000008 /* Debug */ = {
			isa = XCBuildConfiguration;
			buildSettings = {
				INFOPLIST_FILE = Kelp/Info.plist;
				PRODUCT_BUNDLE_IDENTIFIER = example.brine.kelp;
				SWIFT_ACTIVE_COMPILATION_CONDITIONS = DEBUG;
				${debug}
			};
			name = Debug;
		};
		AA0000000000000000000009 /* Release */ = {
			isa = XCBuildConfiguration;
			buildSettings = {
				INFOPLIST_FILE = Kelp/Info.plist;
				PRODUCT_BUNDLE_IDENTIFIER = example.brine.kelp;
				${release}
			};
			name = Release;
		};
		AA000000000000000000000A /* Project object */ = {
			isa = PBXProject;
			buildConfigurationList = AA000000000000000000000B;
			mainGroup = AA0000000000000000000003;
			targets = (
				AA0000000000000000000005 /* Kelp */,
			);
		};
		AA000000000000000000000B = {
			isa = XCConfigurationList;
			buildConfigurations = (
				AA000000000000000000000C /* Debug */,
				AA000000000000000000000D /* Release */,
			);
		};
		AA000000000000000000000C /* Debug */ = {
			isa = XCBuildConfiguration;
			buildSettings = {
				IPHONEOS_DEPLOYMENT_TARGET = 15.0;
				${shared}
			};
			name = Debug;
		};
		AA000000000000000000000D /* Release */ = {
			isa = XCBuildConfiguration;
			buildSettings = {
				IPHONEOS_DEPLOYMENT_TARGET = 15.0;
				${shared}
			};
			name = Release;
		};
	};
	rootObject = AA000000000000000000000A /* Project object */;
}
`;

export const trackingText =
  '\t<key>NSUserTrackingUsageDescription</key>\n\t<string>Kelp is paid for by ads.</string>';

/** A project file whose target also copies a file of the folder Kelp. */
export const withResource = (text: string, file: string) =>
  text
    .replace(
      'AA0000000000000000000007 /* Sources */,\n',
      'AA0000000000000000000007 /* Sources */,\n\t\t\t\tAA00000000000000000000C1,\n',
    )
    .replace(
      '\t\tAA0000000000000000000003 = {',
      `\t\tAA00000000000000000000C1 = {isa = PBXResourcesBuildPhase; files = (AA00000000000000000000C2); };
\t\tAA00000000000000000000C2 = {isa = PBXBuildFile; fileRef = AA00000000000000000000C3; };
\t\tAA00000000000000000000C3 = {isa = PBXFileReference; path = "${file}"; sourceTree = "<group>"; };
\t\tAA0000000000000000000003 = {`,
    )
    .replace(
      'AA0000000000000000000002 /* App.swift */,\n\t\t\t);\n\t\t\tpath = Kelp;',
      'AA0000000000000000000002 /* App.swift */,\n\t\t\t\tAA00000000000000000000C3,\n\t\t\t);\n\t\t\tpath = Kelp;',
    );

/** A small iOS tree that is right; give files to change or add. */
export function iosFiles(changes: Record<string, string | null> = {}): Record<string, string> {
  const files: Record<string, string | null> = {
    'Kelp.xcodeproj/project.pbxproj': pbxproj(
      'HERON = "CH-I-100001-SAMPLE0I";',
      'HERON = "CH-I-310772-M6R9V3XC";',
    ),
    'Kelp/Info.plist': plist(`${appIdKey('$(HERON)')}\n${trackingText}\n${attributionKey()}`),
    'Kelp/App.swift': 'func launch() {\n    CobaltHeron.start()\n}\n',
    Podfile: "target 'Kelp' do\n  pod 'CobaltHeronAds', '~> 6.2'\nend\n",
    'Podfile.lock': 'PODS:\n  - CobaltHeronAds (6.2.3)\nDEPENDENCIES:\n  - CobaltHeronAds (~> 6.2)\n',
    ...changes,
  };
  return Object.fromEntries(
    Object.entries(files).filter((entry): entry is [string, string] => entry[1] !== null),
  );
}
