import { expect } from 'vitest';
import { generatedKeyIgnored } from '../../../src/core/checks/rules/plist-generated-key-ignored.js';
import { plistKeyMissing } from '../../../src/core/checks/rules/plist-key-missing.js';
import { plistKeyWrongType } from '../../../src/core/checks/rules/plist-key-wrong-type.js';
import { linkerFlagMissing } from '../../../src/core/checks/rules/plist-linker-flag-missing.js';
import { plistSharedByTargets } from '../../../src/core/checks/rules/plist-shared-by-targets.js';
import { audienceNotServed } from '../../../src/core/checks/rules/privacy-audience-not-served.js';
import { childrenAskedToTrack } from '../../../src/core/checks/rules/privacy-children-asked-to-track.js';
import { manifestDeniesTracking } from '../../../src/core/checks/rules/privacy-manifest-denies-tracking.js';
import { trackingTextEmpty } from '../../../src/core/checks/rules/privacy-tracking-text-empty.js';
import { trackingTextMissing } from '../../../src/core/checks/rules/privacy-tracking-text-missing.js';
import { capBeyondNetwork } from '../../../src/core/checks/rules/roster-cap-beyond-network.js';
import { capWithoutPeriod } from '../../../src/core/checks/rules/roster-cap-without-period.js';
import { capWithoutEffect } from '../../../src/core/checks/rules/roster-cap-without-effect.js';
import { nearDuplicateIds } from '../../../src/core/checks/rules/roster-near-duplicate-ids.js';
import { noContentKind } from '../../../src/core/checks/rules/roster-no-content-kind.js';
import { refreshOutOfBounds } from '../../../src/core/checks/rules/roster-refresh-out-of-bounds.js';
import { rewardedSkippable } from '../../../src/core/checks/rules/roster-rewarded-skippable.js';
import { rewardedWithoutReward } from '../../../src/core/checks/rules/roster-rewarded-without-reward.js';
import { sameIdTwice } from '../../../src/core/checks/rules/roster-same-id-twice.js';
import { timeoutOutOfBounds } from '../../../src/core/checks/rules/roster-timeout-out-of-bounds.js';
import { twoAccounts } from '../../../src/core/checks/rules/roster-two-accounts.js';
import { vagueName } from '../../../src/core/checks/rules/roster-vague-name.js';
import { Title } from '../../../src/core/roster/model.js';
import { ruleCases } from '../../support/rules.js';
import {
  androidFiles,
  appIdKey,
  iosFiles,
  kelp,
  pbxproj,
  placement,
  plist,
  withResource,
} from '../../support/trees.js';

const files = androidFiles();
const project = 'Kelp.xcodeproj/project.pbxproj';
const one = (format: string, settings: object, name = 'tide-footer') => {
  const units = { 'cobalt-heron': { android: { production: 'CH-U-310772-BBBB1111' } } };
  return Title.parse({ ...kelp(), placements: { [name]: { format, settings, units } } });
};
const ids = (...list: [string, string][]) =>
  kelp({
    placements: Object.fromEntries(
      list.map(([android, ios], index) => [`spot-${'abc'[index]}`, placement('banner', android, ios)]),
    ),
  });
const ferrowick = kelp({ networks: { ferrowick: {} } });
const list = (entries: string, more: Record<string, string | null> = {}) =>
  iosFiles({ 'Kelp/Info.plist': plist(entries), ...more });

ruleCases(refreshOutOfBounds, {
  clean: [{ name: 'within bounds', files, title: one('banner', { refresh: '60s' }) }],
  faulty: [
    {
      name: 'too fast',
      byHand: { title: one('banner', { refresh: '60s' }) },
      files,
      title: one('banner', { refresh: '5s' }),
      findings: [{ placement: 'tide-footer', network: 'cobalt-heron' }],
    },
  ],
});
ruleCases(capBeyondNetwork, {
  clean: [{ name: 'at the bound', files, title: one('interstitial', { cap: { count: 20, per: '1d' } }) }],
  faulty: [
    {
      name: 'above it',
      byHand: { title: one('interstitial', { cap: { count: 5, per: '1d' } }) },
      files,
      title: one('interstitial', { cap: { count: 21, per: '1d' } }),
      findings: [{}],
    },
  ],
});
ruleCases(timeoutOutOfBounds, {
  clean: [{ name: 'within bounds', files, title: one('interstitial', { timeout: '8s' }) }],
  faulty: [
    {
      name: 'too long',
      byHand: { title: one('interstitial', { timeout: '10s' }) },
      files,
      title: one('interstitial', { timeout: '2m' }),
      findings: [{}],
    },
  ],
});
ruleCases(noContentKind, {
  clean: [
    { name: 'some that the network has', files, title: one('rewarded', { content: ['text', 'video'] }) },
  ],
  faulty: [
    {
      name: 'none at all',
      byHand: { title: one('rewarded', { content: ['video'] }) },
      files,
      title: one('rewarded', { content: [] }),
      findings: [{ network: null }],
    },
  ],
});
ruleCases(rewardedWithoutReward, {
  clean: [{ name: 'with a reward', files, title: one('rewarded', { reward: { amount: 1, item: 'hint' } }) }],
  faulty: [
    {
      name: 'without',
      byHand: { title: one('rewarded', { reward: { amount: 1, item: 'hint' } }) },
      files,
      title: one('rewarded', {}),
      findings: [{ placement: 'tide-footer' }],
    },
  ],
});
ruleCases(rewardedSkippable, {
  clean: [{ name: 'not skippable', files, title: one('rewarded', { skippable: false }) }],
  faulty: [
    {
      name: 'skippable',
      byHand: { title: one('rewarded', { skippable: false }) },
      files,
      title: one('rewarded', { skippable: true }),
      findings: [{}],
    },
  ],
});
ruleCases(capWithoutEffect, {
  clean: [{ name: 'a cap that holds', files, title: one('interstitial', { cap: { count: 1, per: '10m' } }) }],
  faulty: [
    {
      name: 'one a second',
      byHand: { title: one('interstitial', { cap: { count: 2, per: '1h' } }) },
      files,
      title: one('interstitial', { cap: { count: 60, per: '1m' } }),
      findings: [{}],
    },
  ],
});
ruleCases(capWithoutPeriod, {
  clean: [{ name: 'with its period', files, title: one('interstitial', { cap: { count: 3, per: '1d' } }) }],
  faulty: [
    {
      name: 'a bare count',
      byHand: { title: one('interstitial', { cap: { count: 3, per: '1h' } }) },
      files,
      title: one('interstitial', { cap: { count: 3 } }),
      findings: [{ placement: 'tide-footer' }],
    },
  ],
});
ruleCases(vagueName, {
  clean: [
    { name: 'tells the place', files, title: one('banner', {}, 'tide-list-footer') },
    { name: 'tells the format', files, title: one('banner', {}, 'banner-1') },
  ],
  faulty: [
    {
      name: 'a number',
      byHand: { title: one('banner', {}, 'tide-footer') },
      files,
      title: one('banner', {}, 'ad-1'),
      findings: [{ placement: 'ad-1' }],
    },
  ],
});
ruleCases(nearDuplicateIds, {
  clean: [
    {
      name: 'numbered one after the other',
      files,
      title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-BBBB1112']),
    },
    {
      name: 'the same for both platforms',
      files,
      title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-BBBB1111']),
    },
  ],
  faulty: [
    {
      name: 'one letter',
      byHand: { title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222']) },
      files,
      title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-BBBD1111']),
      findings: [{ network: 'cobalt-heron' }],
    },
  ],
});
ruleCases(sameIdTwice, {
  clean: [
    {
      name: 'one placement on two platforms',
      files,
      title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-BBBB1111']),
    },
  ],
  faulty: [
    {
      name: 'one ID',
      byHand: {
        title: ids(
          ['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'],
          ['CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444'],
        ),
      },
      files,
      title: ids(
        ['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222'],
        ['CH-U-310772-BBBB1111', 'CH-U-310772-EEEE4444'],
      ),
      findings: [{ message: expect.stringContaining('spot-a and spot-b') }],
    },
  ],
});
ruleCases(twoAccounts, {
  clean: [{ name: 'one account', files, title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222']) }],
  faulty: [
    {
      name: 'another one',
      byHand: { title: ids(['CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222']) },
      files,
      title: ids(['CH-U-310772-BBBB1111', 'CH-U-999999-CCCC2222']),
      findings: [{ message: expect.stringContaining('999999') }],
    },
  ],
});
ruleCases(audienceNotServed, {
  clean: [
    { name: 'served', files, title: kelp({ networks: { marlstone: {} } }) },
    { name: 'a network that takes every audience', files, title: kelp({ audience: 'children' }) },
  ],
  faulty: [
    {
      name: 'children',
      byHand: { title: kelp({ audience: 'children', networks: {} }) },
      files,
      title: kelp({ audience: 'children', networks: { marlstone: {} } }),
      findings: [{ network: 'marlstone' }],
    },
  ],
});

const flag = '\t<key>FerrowickNotices</key>\n\t<true/>';
ruleCases(plistKeyMissing, {
  clean: [{ name: 'there', files: list(flag), title: ferrowick }],
  faulty: [
    { name: 'not there', files: list(''), title: ferrowick, findings: [{ variants: ['Debug', 'Release'] }] },
  ],
});
ruleCases(plistKeyWrongType, {
  clean: [{ name: 'as asked', files: list(flag), title: ferrowick }],
  faulty: [
    {
      name: 'a flag written as text',
      files: list(flag.replace('<true/>', '<string>YES</string>')),
      title: ferrowick,
      findings: [{ message: expect.stringContaining('its type is string') }],
    },
    {
      name: 'the other value',
      files: list(flag.replace('<true/>', '<false/>')),
      title: ferrowick,
      findings: [{ message: expect.stringContaining('it is false') }],
    },
  ],
});
ruleCases(generatedKeyIgnored, {
  clean: [
    {
      name: 'a key of the system',
      files: iosFiles({
        [project]: pbxproj(
          'GENERATE_INFOPLIST_FILE = YES; INFOPLIST_KEY_NSUserTrackingUsageDescription = "x";',
        ),
        'Kelp/Info.plist': plist(''),
      }),
      title: null,
    },
  ],
  faulty: [
    {
      name: 'a key of an SDK',
      files: iosFiles({
        [project]: pbxproj('GENERATE_INFOPLIST_FILE = YES; INFOPLIST_KEY_CobaltHeronAppID = "x";'),
        'Kelp/Info.plist': plist(''),
      }),
      findings: [{ variants: ['Debug'] }],
    },
    {
      name: 'nothing is generated',
      files: iosFiles({
        [project]: pbxproj('INFOPLIST_KEY_NSUserTrackingUsageDescription = "x";'),
        'Kelp/Info.plist': plist(''),
      }),
      findings: [{}],
    },
  ],
});
const packaged = (settings: string) =>
  pbxproj(settings, settings)
    .replace(
      'name = Kelp;\n',
      'name = Kelp;\n\t\t\tpackageProductDependencies = (AA00000000000000000000D1);\n',
    )
    .replace(
      '\t\tAA0000000000000000000003 = {',
      '\t\tAA00000000000000000000D1 = {isa = XCSwiftPackageProductDependency; productName = CobaltHeronAds; };\n\t\tAA0000000000000000000003 = {',
    );
ruleCases(linkerFlagMissing, {
  clean: [
    {
      name: 'set beside the inherited ones',
      files: iosFiles({
        [project]: packaged('OTHER_LDFLAGS = ("$(inherited:default=)", "-ObjC");'),
        Podfile: null,
      }),
    },
  ],
  faulty: [
    {
      name: 'a package without it',
      files: iosFiles({ [project]: packaged(''), Podfile: null }),
      findings: [{ variants: ['Debug', 'Release'] }],
    },
  ],
});
const shared = (value: string, settings = '') =>
  iosFiles({
    'Kelp/Info.plist': plist(appIdKey(value)),
    [project]: pbxproj(settings, settings)
      .replace(
        'AA0000000000000000000005 /* Kelp */,\n\t\t\t);\n\t\t};\n\t\tAA000000000000000000000B',
        'AA0000000000000000000005 /* Kelp */,\n\t\t\t\tAA0000000000000000000015,\n\t\t\t);\n\t\t};\n\t\tAA000000000000000000000B',
      )
      .replace(
        '\t\tAA0000000000000000000006 = {',
        '\t\tAA0000000000000000000015 = {isa = PBXNativeTarget; name = Frond; buildConfigurationList = AA00000000000000000000B1; productType = "com.apple.product-type.application"; };\n\t\tAA00000000000000000000B1 = {isa = XCConfigurationList; buildConfigurations = (AA00000000000000000000B2); };\n\t\tAA00000000000000000000B2 = {isa = XCBuildConfiguration; name = Release; buildSettings = {INFOPLIST_FILE = Kelp/Info.plist; PRODUCT_BUNDLE_IDENTIFIER = example.brine.frond; HERON = frond; }; };\n\t\tAA0000000000000000000006 = {',
      ),
  });
ruleCases(plistSharedByTargets, {
  clean: [{ name: 'through a setting of each', files: shared('$(HERON)', 'HERON = kelp;') }],
  faulty: [
    {
      name: 'a literal',
      files: shared('CH-I-310772-M6R9V3XC'),
      findings: [{ message: expect.stringContaining('Kelp and Frond') }],
    },
  ],
});
ruleCases(trackingTextMissing, {
  clean: [
    { name: 'there', files: iosFiles() },
    { name: 'a network that does not ask', files: list(''), title: ferrowick },
  ],
  faulty: [
    {
      name: 'not there',
      byHand: {
        edits: [
          [
            'Kelp/Info.plist',
            '<dict>',
            '<dict>\n	<key>NSUserTrackingUsageDescription</key>\n	<string>Kelp is paid for by ads.</string>',
          ],
        ],
      },
      files: list(''),
      findings: [{ network: 'cobalt-heron' }],
    },
  ],
});
ruleCases(trackingTextEmpty, {
  clean: [
    { name: 'a sentence', files: iosFiles() },
    {
      name: 'a text that is translated',
      files: list('\t<key>NSUserTrackingUsageDescription</key>\n\t<string>$(TRACKING)</string>'),
    },
  ],
  faulty: [
    {
      name: 'nothing',
      files: list('\t<key>NSUserTrackingUsageDescription</key>\n\t<string> </string>'),
      findings: [{}],
    },
    {
      name: 'a note to oneself',
      byHand: { edits: [['Kelp/Info.plist', 'TODO write this text', 'Kelp is paid for by ads.']] },
      files: list('\t<key>NSUserTrackingUsageDescription</key>\n\t<string>TODO write this text</string>'),
      findings: [{}],
    },
  ],
});
ruleCases(childrenAskedToTrack, {
  clean: [
    { name: 'everybody', files: iosFiles() },
    { name: 'children who are not asked', files: list(''), title: kelp({ audience: 'children' }) },
  ],
  faulty: [
    {
      name: 'children',
      byHand: { edits: [['Kelp/Info.plist', iosFiles()['Kelp/Info.plist'] ?? '', plist('')]] },
      files: iosFiles(),
      title: kelp({ audience: 'children' }),
      findings: [{ platform: 'ios' }],
    },
  ],
});
const privacy = (value: string) =>
  iosFiles({
    [project]: withResource(pbxproj(), 'PrivacyInfo.xcprivacy'),
    'Kelp/PrivacyInfo.xcprivacy': `<plist><dict><key>NSPrivacyTracking</key><${value}/></dict></plist>`,
  });
ruleCases(manifestDeniesTracking, {
  clean: [
    { name: 'says that it does', files: privacy('true') },
    { name: 'does not, and does not ask', files: { ...privacy('false'), 'Kelp/Info.plist': plist('') } },
    { name: 'a manifest that is not built in', files: { ...privacy('false'), [project]: pbxproj() } },
  ],
  faulty: [
    {
      name: 'says that it does not, and asks',
      byHand: { edits: [['Kelp/PrivacyInfo.xcprivacy', '<false/>', '<true/>']] },
      files: privacy('false'),
      findings: [{ place: expect.objectContaining({ path: 'Kelp/PrivacyInfo.xcprivacy' }) }],
    },
  ],
});
