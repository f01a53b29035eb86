import { chmodSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { writeRoster } from '../../src/core/roster/document.js';
import { androidFiles, iosFiles, kelp, placement, root } from '../support/trees.js';
import { openShell } from '../support/shell.js';
import { footer, recorded, typed } from '../support/typed.js';

// What the commands of trees print in formats for machines, with files that a person names, and when a write is refused;
// see `printed.test.ts`.

const below = (folder: string, files: Record<string, string>) =>
  Object.fromEntries(Object.entries(files).map(([path, text]) => [`${folder}/${path}`, text]));
const sample = '<resources>\n    <string name="heron">CH-A-100001-SAMPLE0A</string>\n</resources>\n';

describe('commands print', () => {
  it('findings in each format, and those that are new', () =>
    typed('checks', async (shell) => {
      await recorded(shell);
      shell.write({ ...below('tree', androidFiles()), 'bare/x.txt': 'x' });
      await shell.type('check tree --title kelp --fail-on note');
      const [, first = ''] = /snapshot (\w+)/.exec(shell.text) ?? [];
      shell.write({ 'tree/app/src/release/res/values/ids.xml': sample });
      await shell.type(`
        check tree --title kelp --format junit
        check bare --any-title --format json
        check tree --title kelp --against ${first}
        check tree --title kelp --against ${first} --fail-on warning --verbose
        check tree --title kelp --against 0123456789ab
        check tree --title kelp --fail-on never
        survey bare --json
        survey tree --title nobody
      `);
      const [fingerprint = ''] = /\b[0-9a-f]{16}\b/.exec(shell.text) ?? [];
      await shell.type(`
        accept ${fingerprint} --title kelp --reason "The team knows." --until 2026-07-01 --json
        accept ${fingerprint} --title kelp --reason "Known."
        accept --title kelp
        accept ${fingerprint} --title kelp --withdraw --json
      `);
    }));

  it('a log of SARIF that says where its folder is', async () => {
    const shell = await openShell();
    shell.write(below('tree', androidFiles()));
    await shell.type('check tree --any-title --format sarif');
    const { runs } = JSON.parse(shell.text.slice(shell.text.indexOf('{'))) as {
      runs: unknown;
    };
    expect(runs).toMatchObject([{ originalUriBaseIds: { '%SRCROOT%': { uri: 'file://~/work/tree/' } } }]);
    await shell.stop();
  });

  it('writes into a tree, and what keeps them from being done', () =>
    typed('writes', async (shell) => {
      const units = { android: { production: 'qs.20418.kelppage22' } };
      await recorded(shell, {
        networks: {
          'cobalt-heron': kelp().networks['cobalt-heron'] ?? {},
          quincebury: { android: { production: { app: 'qb.kelpkelpkelpkelp2222' } } },
        },
        placements: { footer, page: { format: 'interstitial', settings: {}, units: { quincebury: units } } },
      });
      shell.write(below('tree', { ...androidFiles(), ...iosFiles() }));
      shell.write({ 'quincebury-client-2.8.aar': new Uint8Array([0x50, 0x4b, 5, 6, ...Array(18).fill(0)]) });
      const manifest = 'tree/app/src/main/AndroidManifest.xml';
      await shell.type(`
        wire tree --title kelp --variant nothing --file quincebury-client-2.8.aar --raise-sdk --call-sites
        wire tree --title kelp --network quincebury --file quincebury-client-2.8.aar --write
        wire tree --title kelp --network quincebury --file quincebury-client-2.8.aar --write
        placebook tree --title kelp
        placebook tree --title kelp --check
        placebook tree --title kelp --write
        placebook tree --title kelp --write
        placebook tree --title kelp --check
        check tree --title kelp --fail-on never
        wire tree --title kelp --write
        undo tree --list
        undo tree
      `);
      const text = readFileSync(join(shell.folder, manifest), 'utf8');
      writeFileSync(join(shell.folder, manifest), `${text}<!-- more -->\n`);
      await shell.type('undo tree\nundo tree --force');
      writeFileSync(join(shell.folder, manifest), text);
      await shell.type(`
        undo tree
        unwire quincebury tree --title kelp --write
        unwire quincebury tree --title kelp --json
        undo tree
        wire tree --title nobody --write
        wire quincebury-client-2.8.aar --title kelp --write
        placebook tree/app/src --title kelp
        placebook tree/app/src --title kelp --check --json
      `);
      shell.write(below('odd', androidFiles({ 'app/src/release/res/values/ids.xml': sample })));
      chmodSync(join(shell.folder, 'odd/app/src/release/res/values/ids.xml'), 0o444);
      await shell.type(`
        wire odd --title kelp --network cobalt-heron --rule stage/test-id-in-production --write
        wire odd --title kelp --network cobalt-heron --rule stage/test-id-in-production --write --force
        undo odd
        undo odd --force
      `);
    }));

  it('a roster with the profiles that it needs', () =>
    typed('roster-profiles', async (shell) => {
      const text = readFileSync(join(root, 'profiles', 'marlstone.yaml'), 'utf8');
      const own = text.replace('id: marlstone', 'id: own-marl').replace('name: Marlstone', 'name: Own Marl');
      shell.write({ 'own.yaml': own });
      await shell.type('network add own.yaml');
      const page = placement('interstitial', 'mrl-KELP-0000041', 'mrl-KELP-0000042', 'own-marl');
      await recorded(shell, { networks: { 'own-marl': { android: {}, ios: {} } }, placements: { page } });
      await shell.type(`
        roster export ads.yaml
        roster export ads.yaml
        roster export ads.yaml --json
        title set kelp --name "Kelp, small"
        roster export other.yml
        network remove own-marl --yes
        title remove kelp --yes
        network remove own-marl --yes
        roster import ads.yaml --dry-run
        roster import ads.yaml --yes
        network list
        roster import ads.yaml --yes
        title set kelp --name "Kelp, large"
        roster import other.yml --yes
        roster import other.yml --yes --json
        roster export none/ads.yaml
        roster export ads-networks
        appads merge none/app-ads.txt --write
      `);
      shell.write({ 'ads-networks/own-marl.yaml': 'profile: 1\n' });
      await shell.type('roster import ads.yaml --dry-run');
      rmSync(join(shell.folder, 'ads-networks'), { recursive: true });
      shell.write({
        'ads-networks': 'x',
        'less.yaml': writeRoster({ syndexa: 1, titles: { kelp: kelp({ placements: { footer } }) } }),
      });
      await shell.type('roster import ads.yaml --dry-run\nroster import less.yaml --dry-run --prune');
      await shell.type('roster import less.yaml', { answer: 'y' });
      await shell.type('roster import less.yaml --json --yes');
    }));
});
