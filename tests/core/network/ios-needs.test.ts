import { describe, expect, it } from 'vitest';
import { brackwater, onBrackwater } from '../../support/brackwater.js';
import { findingsOf } from '../../support/rules.js';
import { expoFiles } from '../../support/expo.js';
import { mauiFiles } from '../../support/maui.js';
import { iosFiles, pbxproj, plist } from '../../support/trees.js';
import { unityFiles } from '../../support/unity.js';
import { comesBack, holds, text, type Files } from '../../support/wiring.js';

// What a profile may ask of an iOS build beyond the usual: values of every type, and several pods or products.

const profiles = [brackwater()];
const title = onBrackwater();
const list = 'Kelp/Info.plist';
const podfile = "target 'Kelp' do\n  pod 'Shore'\nend\n";
const files = (more: Record<string, string> = {}) =>
  iosFiles({ 'Kelp.xcodeproj/project.pbxproj': pbxproj(), [list]: plist(''), Podfile: podfile, ...more });
const found = (tree: Files, on = title) =>
  findingsOf(tree as Record<string, string>, on, undefined, { profiles }).filter(({ rule }) =>
    /^(plist|build)\//.test(rule),
  );
const rulesOf = (tree: Files, on = title) => [...new Set(found(tree, on).map(({ rule }) => rule))];

describe('a network that asks a lot of an iOS build', () => {
  it('has everything missing named, wired, and taken out again', () => {
    const tree = files();
    expect(rulesOf(tree)).toEqual(expect.arrayContaining(['plist/key-missing', 'build/dependency-missing']));
    const made = holds(tree, title, { profiles });
    expect(rulesOf(made.after).filter((rule) => rule.startsWith('plist/'))).toEqual([]);
    expect(text(made.after[list])).toContain(
      '\t<key>NSAppTransportSecurity</key>\n\t<dict>\n\t\t<key>NSExceptionDomains</key>\n\t\t<dict>\n\t\t\t<key>ads.brackwater.example</key>',
    );
    expect(text(made.after[list])).toMatch(/<key>BrackwaterRate<\/key>\s*<real>0.5<\/real>/);
    expect(text(made.after['Podfile'])).toContain(
      "  pod 'BrackwaterCore', '~> 3.1'\n  pod 'BrackwaterReward', '~> 3.1'\nend",
    );
    comesBack(tree, title, made, profiles);
  });

  it('joins what is there: entries of dictionaries, items of arrays', () => {
    const own = `	<key>LSApplicationQueriesSchemes</key>
	<array>
		<string>shore</string>
		<string>brackwater</string>
	</array>
	<key>NSAppTransportSecurity</key>
	<dict>
		<key>NSAllowsLocalNetworking</key>
		<true/>
		<key>NSExceptionDomains</key>
		<dict>
			<key>tides.example</key>
			<dict/>
		</dict>
	</dict>
	<key>BrackwaterLimit</key>
	<integer>3</integer>`;
    const tree = files({ [list]: plist(own) });
    expect(
      found(tree)
        .filter(({ rule }) => rule === 'plist/key-wrong-type')
        .map(({ message }) => message),
    ).toEqual([
      expect.stringContaining('brackwater-store'),
      expect.stringContaining('NSExceptionDomains › ads.brackwater.example'),
    ]);
    const made = holds(tree, title, { profiles });
    const after = text(made.after[list]);
    expect(after.match(/<string>brackwater<\/string>/g)).toHaveLength(1);
    expect(after).toContain('<string>shore</string>');
    expect(after).toContain('<key>NSAllowsLocalNetworking</key>');
    expect(after).toContain('<key>tides.example</key>');
    expect(rulesOf(made.after).filter((rule) => rule.startsWith('plist/'))).toEqual([]);
    comesBack(tree, title, made, profiles);
  });

  it.each([
    ['an integer as text', '<key>BrackwaterLimit</key><string>3</string>'],
    ['another number', '<key>BrackwaterLimit</key><integer>5</integer>'],
    ['an array as a text', '<key>LSApplicationQueriesSchemes</key><string>brackwater</string>'],
    ['a dictionary as a flag', '<key>NSAppTransportSecurity</key><true/>'],
  ])('%s is a finding, and wiring mends it', (_, entry) => {
    const tree = files({ [list]: plist(`\t${entry}`) });
    expect(rulesOf(tree)).toContain('plist/key-wrong-type');
    const made = holds(tree, title, { profiles });
    expect(rulesOf(made.after)).not.toContain('plist/key-wrong-type');
  });

  it('a whole number serves where a real one is asked for', () => {
    const whole = brackwaterWith('value: 0.5', 'value: 1');
    const tree = files({ [list]: plist('\t<key>BrackwaterRate</key><integer>1</integer>') });
    const rules = findingsOf(tree, title, undefined, { profiles: [whole] }).map(
      ({ rule, message }) => `${rule} ${message}`,
    );
    expect(rules.filter((one) => one.includes('BrackwaterRate'))).toEqual([]);
  });

  it('asks for every pod once one is there, and for none of a format that is not used', () => {
    const one = files({ Podfile: "target 'Kelp' do\n  pod 'BrackwaterCore', '3.3'\nend\n" });
    expect(rulesOf(one)).toContain('build/dependency-missing');
    const made = holds(one, title, { profiles });
    expect(text(made.after['Podfile'])).toContain("pod 'BrackwaterReward', '3.3'");
    expect(rulesOf(one, onBrackwater({ rewarded: false }))).not.toContain('build/dependency-missing');
  });
});

function brackwaterWith(from: string, to: string) {
  return brackwater((profile) => profile.replace(from, to));
}

describe('values of property lists in other stacks', () => {
  const on = () => ({
    ...title,
    stages: { test: ['debug', 'development'], production: ['release', 'production'] },
  });
  it.each([
    ['.NET MAUI', mauiFiles(), 'Info.plist'],
    ['Expo', expoFiles(), 'app.json'],
    ['Unity', unityFiles(), 'AdsBuildSteps.cs'],
  ])('%s: wired, nothing left to report, and taken out again', (_, tree, file) => {
    const of = (files: Files) =>
      findingsOf(files as Record<string, string>, on(), undefined, { profiles }).filter(({ rule }) =>
        rule.startsWith('plist/key'),
      );
    expect(of(tree).map(({ rule }) => rule)).toContain('plist/key-missing');
    const made = holds(tree, on(), { profiles });
    expect(of(made.after)).toEqual([]);
    const written = Object.entries(made.after).find(([path]) => path.endsWith(file))?.[1];
    expect(text(written)).toContain('ads.brackwater.example');
    comesBack(tree, on(), made, profiles);
  });
});
