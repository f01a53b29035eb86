import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { appIdMetaData, androidFiles, gradle, iosFiles, manifest, root } from '../support/trees.js';
import { recorded, typed } from '../support/typed.js';

// What the commands of networks and tokens print; see `printed.test.ts`.

const heron = readFileSync(join(root, 'profiles', 'cobalt-heron.yaml'), 'utf8');
const below = (folder: string, files: Record<string, string>) =>
  Object.fromEntries(Object.entries(files).map(([path, text]) => [`${folder}/${path}`, text]));
const answers =
  '--id brightwell --name Brightwell --format banner --unit-id android=bw-u-10000001 ios=bw-u-10000002 --app-id android=bw-a-20000001 ios=bw-a-20000002 --dependency example.brightwell:ads:2.1.0 --repository https://maven.brightwell.example --pod BrightwellAds:2.1 --permission android.permission.INTERNET android.permission.VIBRATE --manifest-key example.brightwell.APP --plist-key BrightwellApp';

describe('commands print', () => {
  it('profiles that replace each other', () =>
    typed('networks-replaced', async (shell) => {
      await recorded(shell);
      shell.write({
        'bare/x.txt': 'x',
        'none.yaml': '- x',
        'same.yaml': heron,
        'renamed.yaml': heron.replace('name: Cobalt Heron', 'name: Heron'),
        'narrow.yaml': heron.replace(
          "pattern: 'CH-U-(?<account>\\d{6})",
          "pattern: 'CH-U-(?<account>[12]\\d{5})",
        ),
      });
      await shell.type(`
        network add same.yaml
        network add renamed.yaml
        network add narrow.yaml
        network add narrow.yaml --json
        network add narrow.yaml --despite-ids --yes
        network add narrow.yaml --despite-ids
        check bare --title kelp --any-title
        network list
        network remove cobalt-heron
        network remove cobalt-heron --json
        network remove cobalt-heron --yes
        network list
        network lint same.yaml none.yaml renamed.yaml --json
        network lint none.yaml
        network new tide.yaml --id tide --name Tide --format banner
        network add tide.yaml --json
        network remove tide --yes --json
      `);
      await shell.type('network add renamed.yaml', { answer: 'y' });
      await shell.type('network add same.yaml', { answer: 'n' });
    }));

  it('what a profile recognises in a tree', () =>
    typed('networks-tried', async (shell) => {
      const key = (value: string) =>
        `        <meta-data android:name="example.brightwell.APP" android:value="${value}" />`;
      const files = androidFiles({
        'app/src/main/AndroidManifest.xml': manifest(`${appIdMetaData('@string/heron')}\n${key('${bwApp}')}`),
        'app/build.gradle.kts': gradle('', 'implementation("example.brightwell:ads:2.0.0")'),
        'app/src/main/java/example/brine/kelp/Screen.kt':
          'class Screen {\n    fun show() = BrightwellBanner.load(this, "bw-u-10000001")\n}\n',
      });
      shell.write({
        ...below('tree', files),
        ...below('both', { ...files, ...iosFiles() }),
        'bare/x.txt': 'x',
        ...below(
          'plain',
          androidFiles({ 'app/build.gradle.kts': gradle('', ''), 'app/src/main/AndroidManifest.xml': null }),
        ),
      });
      await shell.type(`
        network new brightwell.yaml ${answers}
        network test brightwell.yaml --tree tree
        network test ./brightwell.yaml --tree both
        network test brightwell.yaml --tree bare
        network test brightwell.yaml --tree bare --json
        network test brightwell.yaml --tree plain
        network test brightwell.yaml --tree nowhere
        network test cobalt-heron --tree tree
        network test nobody --tree tree
      `);
    }));

  it('a profile drafted from a tree, or question by question', () =>
    typed('networks-drafted', async (shell) => {
      const calls =
        'import example.brightwell.Brightwell\nimport example.tidemark.Tidemark\nclass Screen {\n    fun show() { Brightwell.load(this, "bw-u-10000001"); Tidemark.load(this, "tm-1") }\n}\n';
      shell.write(
        below('tree', {
          ...androidFiles({
            'app/build.gradle.kts': gradle(
              '',
              'implementation("example.brightwell:ads:2.1.0")\n    implementation("example.tidemark:ads:4.0.0")',
            ),
            'app/src/main/java/example/brine/kelp/Screen.kt': calls,
          }),
        }),
      );
      await shell.type('network new --from-tree tree\nnetwork new - --from-tree tree --only brightwell');
      await shell.type('network new one.yaml --from-tree tree', { answer: 'n' });
      await shell.type('network new one.yaml --from-tree tree', { answer: 'y' });
      await shell.type(`
        network new one.yaml --from-tree tree --only tidemark
        network new two.yaml --from-tree tree --only tidemark
        network new three.yaml --from-tree tree --only nobody
        network new tree/none/three.yaml --id three --name Three --format banner
        network new ${answers} --about "Sells banners." --platform android --app-sample android=bw-a-1 --unit-sample android=bw-u-1
        network new ${answers}
        network new --name X
        network new --id tide --unit-id windows=1
        network new --id tide --app-id android
        network new - --id tide
      `);
      await shell.type('network new - --id tide --name Tide', {
        answer: 'ios=tide-9 android=tide-8 banner native',
      });
      await shell.type('network new - --id tide --name Tide', { answer: 'nonsense' });
    }));

  it('tokens', () =>
    typed('tokens', async (shell) => {
      await shell.type(`
        token add build-server --role editor
        token add build-server --role viewer
        token add laptop --role owner --json
        token add laptop --role admin --json
        token add "Build Server" --role viewer
        token add buildServer --role viewer
        token add build/server --role viewer
        token add reader --role reader
        token list
        token list --json
        token revoke laptop
        token list
        token revoke laptop
        token add laptop --role viewer
        token list
      `);
      const [, shown] = /token add build-server --role editor\n(\S+)/.exec(shell.text) ?? [];
      expect(shown).toBe('TOKEN');
    }));
});
