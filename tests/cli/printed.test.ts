import { writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { writeRoster } from '../../src/core/roster/document.js';
import { documentsIn } from '../support/shapes.js';
import { androidFiles, gradle, iosFiles, kelp, placement, root } from '../support/trees.js';
import { tag, inline } from '../support/vast.js';
import { openShell } from '../support/shell.js';
import { footer, recorded, typed, typedBesidePartner } from '../support/typed.js';

// What commands print, as it is read in a terminal: each test types commands and compares all of it with a file in
// `printed`. After a change that is meant, `npx vitest run tests/cli/printed -u` writes the files anew.

describe('commands print', () => {
  it('titles, their placements and their IDs', () =>
    typed('titles', async (shell) => {
      await shell.type(`
        title list
        title add kelp --name Kelp --android example.brine.kelp --ios example.brine.kelp --test debug --production release
        title list
        title show kelp
        title add kelp --name Kelp --android example.brine.kelp
        title add Kelp --name Kelp
        title set kelp --tracking "So that ads pay for the tides." --audience mixed
        placement list kelp
        placement add kelp footer --format banner --refresh 60s --where "below the list" --network cobalt-heron
        placement add kelp prize --format rewarded --reward "1 day of charts" --network cobalt-heron marlstone
        placement add kelp prize --format rewarded
        placement set kelp footer --refresh 5s
        placement set kelp footer --refresh 90s --size adaptive --anchor bottom --content text image
        placement set kelp footer --cap "3 per 1d"
        placement set kelp prize --cap 2 --timeout 5s --skippable no --end-card yes --fallback marlstone cobalt-heron
        placement set kelp prize --cap often
        placement set kelp prize --reward charts
        placement set kelp prize --clear cap end-card
        placement set kelp prize --clear everything
        placement list kelp
        id list kelp
        id set kelp CH-A-310772-QK4T8W2N --network cobalt-heron --platform android
        id set kelp CH-U-310772-BBBB1111 --network cobalt-heron --platform android --placement footer
        id set kelp CH-U-310772-BBBB1111 --network cobalt-heron --platform ios --placement footer
        id set kelp "CH-I-310772-M6R9V3XC " --network cobalt-heron --platform ios
        id set kelp CH-A-310772-QK4T8W2N --network cobalt-heron --platform ios
        id set kelp CH-A-310772-QK4T8W2N --network cobalt-heron --platform android --placement footer
        id set kelp CH-X-1 --network cobalt-heron --platform android --placement footer
        id set kelp CH-U-310772-BBBB1111 --network nobody --platform android --placement footer
        id list kelp
        id trace CH-U-310772-BBBB1111
        id trace CH-U-310772-ZZZZ9999
        find foot
        find nothing-like-it
        board kelp
        title show kelp
        id unset kelp --network cobalt-heron --platform ios --placement footer
        id unset kelp --network cobalt-heron --platform ios --placement footer
        title history kelp
        title history kelp --revert 5
        placement add kelp bonus --format rewarded --reward "1 hint" --network marlstone
        title history kelp --revert 99
        title show nobody
      `);
      await shell.type('placement remove kelp bonus', { answer: 'no' });
      await shell.type('placement remove kelp bonus', { answer: 'yes' });
      await shell.type('title set kelp --leave cobalt-heron', { answer: 'n' });
      await shell.type('title set kelp --leave cobalt-heron', { answer: 'y' });
      await shell.type('title set kelp --leave cobalt-heron', { answer: 'y' });
      await shell.type('title remove kelp');
      await shell.type('title remove kelp', { answer: '' });
      await shell.type('title remove kelp --yes\ntitle list');
    }));

  it('the roster as a document', () =>
    typed('roster', async (shell) => {
      const title = kelp({ placements: { footer } });
      shell.write({
        'new.yaml': writeRoster({
          syndexa: 1,
          titles: { kelp: title, moss: { ...title, name: 'Moss', networks: {}, placements: {} } },
        }),
        'twice.yaml': writeRoster({ syndexa: 1, titles: { kelp: title, moss: { ...title, name: 'Moss' } } }),
        'broken.yaml': 'syndexa: 1\ntitles:\n  kelp: { name: Kelp, edtions: {} }\n',
        'other.yaml': 'syndexa: 9\n',
        'none.yaml': '- no\n- roster\n',
      });
      await shell.type(`
        roster export
        roster import new.yaml --dry-run
        roster import new.yaml --yes
        roster import new.yaml --yes
        roster import twice.yaml --yes
        roster import broken.yaml --yes
        roster import other.yaml --yes
        roster import none.yaml --yes
        roster import nowhere.yaml --yes
        roster import new.yaml
        roster export
        roster export out.yaml
        title remove moss --yes
        roster import out.yaml --dry-run --prune
        publisher show
        publisher set --name Brine --domain brine.example
        publisher set --domain "brine example"
        publisher set --account marlstone=SM-20418 --credential cobalt-heron.inventory=secret:HERON
        publisher set --account marlstone
        publisher set --credential cobalt-heron.inventory=plain-key
        publisher show
      `);
      await shell.type('roster import - --yes', { input: 'syndexa: 1\ntitles: {}\n' });
      await shell.type('roster import new.yaml --prune', { answer: 'n' });
    }));

  it('secrets and tokens', () =>
    typed('secrets', async (shell) => {
      await shell.type('secret list');
      await shell.type('secret set HERON', { input: 'planted-key-9f27c1e0b4\n' });
      await shell.type('secret set heron', { input: 'x' });
      await shell.type('secret set EMPTY', { input: '\n' });
      await shell.type('secret set ASKED', { answer: 'answered-3b41d2' });
      await shell.type(`
        publisher set --name Brine --domain brine.example --credential cobalt-heron.inventory=secret:HERON marlstone.console=secret:ASKED
        secret list
        secret allow HERON --host 127.0.0.1:4871
        secret allow HERON --host nonsense/path
        secret allow HERON --host inventory.cobaltheron.example
        secret allow ASKED --host inventory.marlstone.example
        secret disallow HERON --host 127.0.0.1:1
        secret set 9HERON
        secret set HERON.X
        secret list
        secret disallow HERON --host 127.0.0.1:4871
        secret disallow HERON --host 127.0.0.1:4871
        secret list
        secret unset HERON
        secret unset HERON
        token list
        token revoke nobody
      `);
      expect(shell.text).not.toContain('planted');
    }));

  it('networks', () =>
    typed('networks', async (shell) => {
      shell.write({
        'broken.yaml': 'profile: 1\nid: Brightwell\nformats: { banners: {} }\n',
        'none.yaml': 'x',
      });
      await shell.type(`
        network list
        network show quincebury
        network show nobody
        network lint broken.yaml none.yaml
        network new brightwell.yaml --id brightwell --name Brightwell --format banner interstitial --unit-id android=bw-u-10000001 ios=bw-u-10000002 --app-id android=bw-a-20000001 ios=bw-a-20000002 --dependency example.brightwell:ads:2.1.0 --repository https://maven.brightwell.example --pod BrightwellAds:2.1 --permission android.permission.INTERNET --manifest-key example.brightwell.APP --plist-key BrightwellApp
        network new brightwell.yaml --id brightwell --name Brightwell --format banner --unit-id android=bw-u-10000001
        network new --id x --name X --format banner --unit-id android=1
        network new - --name X --format banner
        network lint brightwell.yaml
        network test brightwell.yaml --tree tree
        network add brightwell.yaml
        network list
        network add brightwell.yaml
        network add nowhere.yaml
        network test cobalt-heron --tree tree
        network remove cobalt-heron --yes
      `);
      await shell.type('network remove brightwell', { answer: 'n' });
      await shell.type('network remove brightwell', { answer: 'y' });
      await shell.type('network remove brightwell --yes');
    }));

  it('app-ads.txt and lists of attribution', () =>
    typed('standards', async (shell) => {
      await recorded(shell);
      shell.write({
        'app-ads.txt': '# Brine\ncobaltheron.example, 310772, DIRECT\nodd line\nother.example, 1, RESELLER\n',
        'list.json': JSON.stringify({
          company_name: 'X',
          skadnetwork_ids: [{ id: 1, skadnetwork_id: 'ab12cd34ef.skadnetwork' }],
        }),
        'bad.json': '{"skadnetwork_ids": [{"skadnetwork_id": "AB.skadnetwork"}]',
        'Info.plist':
          '<?xml version="1.0" encoding="UTF-8"?>\n<plist version="1.0">\n<dict>\n\t<key>CFBundleName</key>\n\t<string>Kelp</string>\n</dict>\n</plist>\n',
      });
      await shell.type(`
        appads show
        publisher set --name Brine --domain brine.example
        appads show
        appads lint app-ads.txt
        appads merge app-ads.txt
        appads merge app-ads.txt --write
        appads merge app-ads.txt
        appads lint nowhere.txt
        appads verify --url http://127.0.0.1:1/app-ads.txt
        appads verify --url ftp://brine.example
        attribution show
        attribution lint list.json
        attribution lint bad.json
        attribution merge Info.plist --list list.json
        attribution merge Info.plist --list list.json --write
        attribution merge Info.plist --list list.json
        attribution merge app-ads.txt
      `);
    }));

  it('what a developer site serves, beside what is needed', () =>
    typed('site', async (shell) => {
      await recorded(shell, {
        networks: {
          'cobalt-heron': kelp().networks['cobalt-heron'] ?? {},
          marlstone: { android: {} },
          quincebury: {},
        },
      });
      let served = '';
      const site = createServer((request, response) => {
        if (request.url !== '/app-ads.txt') response.statusCode = 404;
        response.end(served);
      });
      await new Promise<void>((ready) => site.listen(0, '127.0.0.1', ready));
      const at = `http://127.0.0.1:${(site.address() as AddressInfo).port}`;
      try {
        await shell.type('appads verify\nappads show');
        await shell.type('publisher set --name Brine --domain brine.example --account cobalt-heron=310772');
        const verify = async (text: string, options = '') => {
          served = text;
          await shell.type(`appads verify --url ${at}/app-ads.txt ${options}`);
        };
        await verify('');
        await verify('cobaltheron.example, 310772, RESELLER\nodd line\n');
        await verify('cobaltheron.example, 310772, DIRECT, c0ba17he\n');
        await verify('cobaltheron.example, 310772, DIRECT, c0ba17he\nodd line\n', '--json');
        await shell.type('appads show --json');
        await verify(/"text": "(.*)"/.exec(shell.text)?.[1]?.replaceAll('\\n', '\n') ?? '');
        await shell.type(`appads verify --url ${at}/none.txt`);
        shell.write({ 'app-ads.txt': served, folder: 'x' });
        await shell.type('appads merge app-ads.txt --write\nappads lint app-ads.txt\nappads merge folder/x');
      } finally {
        site.close();
      }
    }));

  it('what is wrong with how a command was typed', () =>
    typed('wrong-use', async (shell) => {
      await shell.type(`
        chekc .
        check
        check nowhere
        check . --fail-on everything
        title show ""
        title show kelp extra
        id set kelp x --platform windows
        placement add kelp x --format poster
        placement add kelp x --format native --first many
        steps nobody
        title show nobody --json
        tally show
        rehearse
        rehearse --scenarios
        undo .
        undo . --list
      `);
    }));

  it('a tree: what is wired, what is wrong, and what is done about it', () =>
    typed('trees', async (shell) => {
      const files = { ...androidFiles(), ...iosFiles() };
      const at = (folder: string, changes: Record<string, string>) =>
        Object.fromEntries(
          Object.entries({ ...files, ...changes }).map(([path, text]) => [`${folder}/${path}`, text]),
        );
      shell.write(
        at('tree', {
          'app/src/release/res/values/ids.xml':
            '<resources>\n    <string name="heron">CH-A-100001-SAMPLE0A</string>\n</resources>\n',
          'app/src/main/java/example/brine/kelp/Screen.kt':
            'class Screen : Activity() {\n    override fun onCreate(state: Bundle?) {\n        HeronBanner.load(this, "CH-U-310772-BBBB1111", this)\n    }\n}\n',
        }),
      );
      await shell.type('survey tree');
      await shell.type('check tree\ncheck tree --any-title');
      await recorded(shell);
      await shell.type(`
        survey tree --title kelp --explain "app ID release"
        survey tree --title kelp --explain "nothing such"
        check tree --title kelp
        check tree --title kelp --verbose --fail-on never
        check tree --title nobody
        wire tree --title kelp --rule stage/test-id-in-production
        wire tree --title kelp --rule app-id/mising
        wire tree --title kelp --rule app-id/missing
        wire tree --title kelp --network nobody
        wire tree --title kelp --variant relese
        wire tree --title kelp --variant staging
        wire tree --title kelp --variant RELEASE --part android/cobalt-heron/app-id
        wire tree --title kelp --part app-id
        wire tree --title kelp --part android/nobody/app-id
        wire tree --title kelp --part android/cobalt-heron/app-id --write
        wire tree --title kelp --call-sites --write
        wire tree --title kelp --call-sites
        check tree --title kelp
        placebook tree --title kelp --check
        undo tree --list
        undo tree
        undo tree
        unwire cobalt-heron tree --title kelp
        unwire nobody tree --title kelp
        title link kelp tree
        board kelp
        steps kelp --next
        steps kelp --platform ios
        steps kelp --tick nothing
        title list
        accept --title kelp --list
        accept 0123456789abcdef --title kelp --reason "It is known." --until 2026-07-01
      `);
      const found = /\b[0-9a-f]{16}\b/.exec(shell.text)?.[0] ?? '';
      expect(found).not.toBe('');
      await shell.type(`
        accept ${found} --title kelp --reason "The team knows." --until 2026-07-01
        accept ${found} --title kelp --reason "The team knows." --until 2020-01-01
        accept ${found} --title kelp
        accept --title kelp --list
        check tree --title kelp
        accept ${found} --title kelp --withdraw
        accept ${found} --title kelp --withdraw
        title adopt tree --id moss
        title look-up kelp
      `);
    }));

  it('what networks answer', () =>
    typedBesidePartner('networks-asked', async (shell) => {
      await recorded(shell, {
        networks: {},
        placements: { page: { format: 'interstitial', settings: {}, units: { 'cobalt-heron': {} } } },
      });
      await shell.type(`
            provision kelp --dry-run
            provision kelp
            provision kelp --yes
            provision kelp
            provision nobody
            id collect kelp --network cobalt-heron --dry-run
            id collect kelp --network cobalt-heron --yes
            id collect kelp --network marlstone
            id list kelp
            tally fetch
            tally fetch --network marlstone
            secret list
          `);
      shell.write({
        'units.csv':
          'Unit ID,Unit name,Format,Platform,App ID,Status\nCH-U-310772-KKKK1111,kelp_page_interstitial_ios,full-screen,ios,CH-I-310772-M6R9V3XC,serving\n',
        'odd.csv': 'a;b\n1;2\n',
      });
      await shell.type(`
            id collect kelp --network cobalt-heron --csv units.csv --dry-run
            id collect kelp --network cobalt-heron --csv odd.csv
            id collect kelp --network cobalt-heron --csv nowhere.csv
          `);
    }));

  it('the simulated partner', () =>
    typedBesidePartner('partner', async (shell, partner) => {
      await recorded(shell);
      await shell.type('partner clock');
      writeFileSync(
        join(shell.home, 'partner.json'),
        JSON.stringify({ url: partner.url, token: partner.token }),
      );
      await shell.type(`
            partner clock
            partner clock --advance 2h
            partner clock --advance soon
            partner clock --now 2026-06-02T00:00:00Z --stand
            partner open-accounts Brine --network marlstone
            partner open-accounts Brine --network nobody
            partner faults cobalt-heron --kinds error cut --every 4
            partner faults cobalt-heron --kinds nonsense
            partner faults cobalt-heron
            partner market cobalt-heron --fill 60 --latency 400
            partner market cobalt-heron --fill 101
            partner device cobalt-heron pixel-on-my-desk
            partner accept cobalt-heron CH-A-310772-QK4T8W2N
            partner list-app android example.brine.kelp --name Kelp --site brine.example
            partner crawl cobalt-heron
            partner lift cobalt-heron
            partner incident cobalt-heron --what silent --unit CH-U-310772-BBBB1111 --from 2026-05-01
            partner incident cobalt-heron --what silent --from 2026-05-01
            partner incident cobalt-heron --what silent --unit x --from never
            partner report cobalt-heron --days 2
            partner report nobody
          `);
    }));

  it('rehearsals', () =>
    typedBesidePartner('rehearsals', async (shell) => {
      const screen = `class Screen : Activity() {
  private var ad: HeronInterstitial? = null
  override fun onCreate(state: Bundle?) { ad = HeronInterstitial.load(this, "CH-U-310772-DDDD3333", this) }
  fun onTap() { val now = ad
    if (now?.isReady == true) now.show(this) else next() }
  override fun onHeronFailed(code: Int) { next() }
  override fun onHeronClosed() { next() }
  override fun onDestroy() { ad?.release() }
}
`;
      const page = placement('interstitial', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444');
      await recorded(shell, {
        editions: { android: { identifier: 'example.brine.kelp' } },
        placements: { page, unused: footer },
      });
      const files = androidFiles({ 'app/src/main/java/example/brine/kelp/Screen.kt': screen });
      shell.write(Object.fromEntries(Object.entries(files).map(([path, text]) => [`tree/${path}`, text])));
      shell.write({ 'odd.yaml': 'scenario: 1\nname: odd\nsteps: 5\n' });
      await shell.type(`
            rehearse tree --title kelp
            rehearse tree --title kelp --placement page --variant debug --trace
            rehearse tree --title kelp --placement page --no-fill
            rehearse tree --title kelp --placement page --offline
            rehearse tree --title kelp --placement page --slow --scenario impatient-user --seed 3
            rehearse tree --title kelp --placement page --format junit
            rehearse tree --title kelp --placement nobody
            rehearse tree --title kelp --variant nobody
            rehearse tree --title kelp --platform ios
            rehearse tree --title kelp --scenario nobody
            rehearse tree --title kelp --scenario ./odd.yaml
            rehearse tree --title nobody
          `);
    }));

  it('daily numbers', () =>
    typed('tally', async (shell) => {
      await recorded(shell);
      const day = (at: number) => `2026-05-${String(at).padStart(2, '0')}`;
      const row = (at: number, unit: string, earned: string) =>
        `${day(at)},${unit},1000,800,500,5,${earned},EUR`;
      const head = 'Day,Unit ID,Requests,Matched,Impressions,Clicks,Revenue,Currency';
      const days = Array.from({ length: 31 }, (_, at) => at + 1);
      shell.write({
        'may.csv': `${[head, ...days.flatMap((at) => [row(at, 'CH-U-310772-BBBB1111', '4.00'), ...(at < 25 ? [row(at, 'CH-U-310772-CCCC2222', '6.00')] : [])])].join('\n')}\n`,
        'again.csv': `${[head, row(31, 'CH-U-310772-BBBB1111', '5.00'), row(31, 'CH-U-310772-ZZZZ9999', '1.00')].join('\n')}\n`,
        'bad.csv': `${head}\nyesterday,x,1,1,1,1,1,EUR\n2026-05-01,CH-U-310772-BBBB1111,many,1,1,1,1,EUR\n`,
        'rates.csv': 'day,currency,base,rate\n2026-05-01,EUR,USD,1.25\n',
      });
      await shell.type(`
        tally show kelp
        tally imports
        tally silent
        tally import may.csv --network cobalt-heron
        tally import may.csv --network cobalt-heron
        tally import again.csv --network cobalt-heron
        tally import bad.csv --network cobalt-heron
        tally import may.csv --network nobody
        tally imports
        tally show kelp
        tally show kelp --by week
        tally show kelp --by placement --days 2026-05-01..07
        tally show kelp --in USD
        tally rates rates.csv
        tally rates bad.csv
        tally show kelp --in USD
        tally show --all --by network
        tally show kelp --csv --by platform
        tally show kelp --days never
        tally compare kelp --this 7d
        tally compare kelp --this 2026-05-20..26 --against 2026-05-06..12
        tally release kelp
        tally release kelp 2.0 --platform android --on 2026-05-20
        tally release kelp 2.0 --platform ios --on 2026-05-32
        tally release kelp
        tally release kelp 2.0 --platform android --drop
        tally release kelp 2.0 --platform android --drop
        tally silent
        tally silent kelp
        find ZZZZ
        id trace CH-U-310772-CCCC2222
      `);
    }));

  it('tags', () =>
    typed('tags', async (shell) => {
      shell.write({
        'tag.xml': tag(inline()),
        'broken.xml': '<VAST version="4.2"><Ad></VAST>',
        'none.txt': 'x',
      });
      await shell.type(`
        tag show tag.xml --no-media
        tag play tag.xml --no-media
        tag play tag.xml --no-media --do pause@4s resume@9s skip@12s
        tag play tag.xml --no-media --do dance@4s
        tag show broken.xml --no-media
        tag show none.txt --no-media
        tag show nowhere.xml
        tag lint
      `);
    }));

  it('documents of --json', () =>
    typed('json', async (shell) => {
      await recorded(shell);
      const files = { ...androidFiles({ 'app/build.gradle.kts': gradle('', '') }), ...iosFiles() };
      shell.write(Object.fromEntries(Object.entries(files).map(([path, text]) => [`tree/${path}`, text])));
      const title = kelp({ placements: { footer } });
      shell.write({
        'app-ads.txt': 'cobaltheron.example, 310772, DIRECT\nodd line\n',
        'list.json':
          '{"company_name":"X","company_address":"1 Quay","company_domain":"x.example","skadnetwork_ids":[{"id":1,"skadnetwork_id":"ab12cd34ef.skadnetwork"}]}',
        'may.csv':
          'Day,Unit ID,Requests,Matched,Impressions,Clicks,Revenue,Currency\n2026-05-30,CH-U-310772-BBBB1111,1000,800,500,5,4.00,EUR\n',
        'rates.csv': 'day,currency,base,rate\n2026-05-01,EUR,USD,1.25\n',
        'tag.xml': tag(inline()),
        'broken.yaml': 'profile: 1\nid: Brightwell\n',
        'new.yaml': writeRoster({
          syndexa: 1,
          titles: { kelp: title, moss: { ...title, name: 'Moss', networks: {}, placements: {} } },
        }),
      });
      await shell.type(`
        title list --json
        title show kelp --json
        title add moss --name Moss --json
        title set moss --name Fern --json
        title remove moss --yes --json
        title history kelp --json
        title adopt tree --id fern --json
        title look-up kelp --json
        title link kelp tree --json
        placement list kelp --json
        placement add kelp page --format interstitial --network marlstone --json
        placement set kelp page --timeout 5s --json
        placement remove kelp page --json
        id list kelp --json
        id set kelp CH-A-310772-QK4T8W2N --network cobalt-heron --platform android --json
        id trace CH-U-310772-BBBB1111 --json
        id unset kelp --network marlstone --platform ios --json
        find foot --json
        board kelp --json
        steps kelp --platform ios --next --json
        publisher set --name Brine --domain brine.example --json
        publisher show --json
        secret list --json
        network lint broken.yaml --json
        network new - --id brightwell --name Brightwell --format banner --unit-id android=bw-u-10000001 --json
        network test broken.yaml --tree tree --json
        network add broken.yaml --json
        network remove cobalt-heron --yes --json
        survey tree --title kelp --explain "app ID release" --json
        check tree --title kelp --json
        wire tree --title kelp --rule build/dependency-missing --write --json
        undo tree --list --json
        undo tree --json
        unwire cobalt-heron tree --title kelp --json
        placebook tree --title kelp --check --json
        accept --title kelp --list --json
        appads show --json
        appads lint app-ads.txt --json
        appads merge app-ads.txt --json
        attribution show --json
        attribution lint list.json --json
        attribution compare tree --title kelp --list list.json --json
        tag show tag.xml --no-media --json
        tag lint --json
        attribution merge tree/Kelp/Info.plist --list list.json --json
        token list --json
        rehearse --scenarios --json
        tally fetch --json
        tally import may.csv --network cobalt-heron --json
        tally imports --json
        tally release kelp 2.0 --platform android --on 2026-05-20 --json
        tally rates rates.csv --json
        tally show kelp --json
        tally compare kelp --this 7d --json
        tally silent kelp --json
        roster export --json
        roster import new.yaml --dry-run --json
        roster import new.yaml --yes --json
        network list --json
      `);
      expect(documentsIn(shell.text).length).toBeGreaterThan(50);
    }));

  it('what is typed less often', () =>
    typed('seldom', async (shell) => {
      await recorded(shell);
      const files = { ...androidFiles(), ...iosFiles() };
      shell.write(Object.fromEntries(Object.entries(files).map(([path, text]) => [`tree/${path}`, text])));
      shell.write({
        'list.json':
          '{"company_name":"X","company_address":"1 Quay","company_domain":"x.example","skadnetwork_ids":[{"id":1,"skadnetwork_id":"ab12cd34ef.skadnetwork"}]}',
        'one.csv':
          'Datum;Unit ID;Requests;Matched;Impressions;Clicks;Revenue;Currency\n2026-05-30;CH-U-310772-BBBB1111;1000;800;500;5;4,00;EUR\n',
        'latin.txt': new Uint8Array([0x23, 0xe9, 0x0a]),
        'binary.plist': new Uint8Array([...new TextEncoder().encode('bplist00'), 0, 1, 2]),
        'odd.bin': new Uint8Array([0, 1, 2]),
        'half.yaml': '# half\nsyndexa: 1\ntitles: { kelp: { name: Kelp\n',
        'empty.yaml': '\n',
      });
      await shell.type(`
        title set kelp --module "android=app" --json
        title set kelp --module "ios=Kelp (Kelp.xcodeproj)"
        title show kelp
        title set kelp --module ios=
        title set kelp --module nonsense
        title set kelp --module windows=app
        title set kelp --test debug staging --production release store --audience children
        title show kelp
        title add fern --android example.brine.fern --tracking "So that ads pay."
        title add fern --android example.brine.fern
        title set fern --ios example.brine.fern --tracking "So that ads pay."
        title show fern
        board fern
        id list fern
        steps fern
        steps kelp --tick declare-store
        steps kelp --tick nothing --platform ios
        steps kelp --network cobalt-heron --platform android --next
        title history kelp --revert 1
        title link fern nowhere
        title adopt tree --id moss --out moss.yaml
        title adopt tree --id moss --out moss.yaml
        title adopt tree --id moss --name Moss --yes
        title take moss.yaml
        title take nowhere.yaml
        title remove moss --yes
        title take moss.yaml
        id set kelp secret:HERON --network cobalt-heron --platform android --credential inventory
        secret list
        attribution compare tree --title kelp
        attribution compare tree --title kelp --list list.json
        attribution merge tree/Kelp/Info.plist --list list.json --write
        attribution compare tree --title kelp --list list.json
        attribution merge binary.plist
        attribution merge latin.txt
        appads merge latin.txt --write
        roster export latin.txt
        roster export odd.bin
        roster export list.json
        roster export half.yaml
        roster export half.yaml --json
        roster export empty.yaml
        attribution lint latin.txt
        tally import one.csv --network cobalt-heron
        tally import one.csv --network cobalt-heron --column day=Datum --separator ";"
        tally import one.csv --network cobalt-heron --column nothing
        tally import tree --network cobalt-heron
        tally show kelp --from 2026-05-29 --to 2026-05-30
        tally show kelp --all
        tally compare
        tally release kelp 2.0
        wire tree --title kelp --file nowhere.aar
        wire tree --title kelp --file odd.bin --raise-sdk --network cobalt-heron --variant release
        wire nowhere --title kelp --write
        undo nowhere
        tag show ftp://ads.example/tag
        tag show odd.bin --no-media
        publisher set --account "nothing"
        network test ./nowhere.yaml --tree tree
        network new -
        network new tree/fern.yaml --from-tree tree
        find kelp
        id trace nothing-like-it
      `);
      await shell.type('tally import - --network cobalt-heron', {
        input:
          'Day,Unit ID,Requests,Matched,Impressions,Clicks,Revenue,Currency\n2026-05-29,CH-U-310772-BBBB1111,10,8,5,0,1.00,EUR\n',
      });
      await shell.type('network new', { answer: 'brightwell' });
      await shell.type('network new tide.yaml --id tide --name Tide', { answer: '' });
      await shell.type('title take -', { input: 'titles: 5\n' });
    }));

  it('what a shell may complete', () =>
    typed('completions', async (shell) => {
      await recorded(shell);
      await shell.type(`
        complete -- ""
        complete -- ti
        complete -- title ""
        complete -- title add --
        complete -- help placement ""
        complete -- board ""
        complete -- board m
        complete -- check tree --format ""
        complete -- check tree --title kelp --fail-on ""
        complete -- placement add kelp footer --network marlstone q
        complete -- placement add kelp footer --network marlstone --format n
        complete -- unwire ferrowick ""
        complete -- network lint a.yaml ""
        complete -- id set kelp ""
        complete -- serve --port ""
        complete -- undo tree more ""
        completion bash
        completion zsh
        completion fish
      `);
    }));

  it('the documentation that is made from the code', async () => {
    const shell = await openShell();
    const command = `docs --write ${join(root, 'docs')} --check`;
    try {
      await shell.type(command);
      expect(shell.text).toBe(`$ syndexa ${command}\nEvery page is current.\n\n`);
    } finally {
      await shell.stop();
    }
  });
});
