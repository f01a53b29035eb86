import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, it } from 'vitest';
import { kelp, placement, placementOf } from '../support/titles.js';
import { footer, recorded, typed, typedBesidePartner } from '../support/typed.js';

// What the commands print that ask networks or read their tables, and those that set up the simulated partner; see
// `printed.test.ts`.

const page = placement('interstitial', 'CH-U-310772-DDDD3333', 'CH-U-310772-EEEE4444');
const open = placementOf({ 'cobalt-heron': {} }, 'interstitial');

describe('commands print', () => {
  it('tables of units, and what is made of them', () =>
    typed('collected', async (shell) => {
      await recorded(shell, {
        placements: { footer: { ...footer, units: { 'cobalt-heron': {} } }, page, pause: open },
      });
      const head = 'Unit ID,Unit name,Format,Platform,App ID,Status';
      const row = (
        unit: string,
        name: string,
        format = 'full-screen',
        platform = 'ios',
        status = 'serving',
      ) =>
        `CH-U-310772-${unit},${name},${format},${platform},CH-${platform === 'ios' ? 'I-310772-M6R9V3XC' : 'A-310772-QK4T8W2N'},${status}`;
      const many = Array.from({ length: 45 }, (_, at) => row(`MANY00${at + 10}`, `other ${at}`));
      shell.write({
        'sure.csv': `${[head, row('FOOT0001', 'kelp_footer_banner_ios', 'banner'), row('DDDD3333', 'page', 'full-screen', 'android')].join('\n')}\n`,
        'vague.csv': `${[head, row('PAUS0001', 'Pause'), row('PAUS0002', 'between levels'), row('PAUS0003', 'pause old', 'full-screen', 'ios', 'archived'), 'nonsense,x,banner,ios,y,serving', row('PAUS0004', 'x', 'poster')].join('\n')}\n`,
        'many.csv': `${[head, ...many].join('\n')}\n`,
        'other.csv': 'Kennung;Name;Art;System\nCH-U-310772-FOOT0002;kelp footer;banner;android\n',
        'tabs.tsv': `${[head, row('FOOT0003', 'kelp_footer_banner_android', 'banner', 'android')].join('\n').replaceAll(',', '\t')}\n`,
      });
      await shell.type(`
        id collect kelp --network cobalt-heron --csv sure.csv --dry-run --json
        id collect kelp --network cobalt-heron --csv sure.csv
      `);
      await shell.type('id collect kelp --network cobalt-heron --csv sure.csv', { answer: 'n' });
      await shell.type('id collect kelp --network cobalt-heron --csv sure.csv', { answer: 'yes' });
      await shell.type(`
        id collect kelp --network cobalt-heron --csv sure.csv
        id collect kelp --network cobalt-heron --csv vague.csv --dry-run
        id collect kelp --network cobalt-heron --csv vague.csv --yes
        id collect kelp --network cobalt-heron --csv vague.csv --take-low --yes --json
        id collect kelp --network cobalt-heron --csv many.csv --dry-run
        id collect kelp --network cobalt-heron --csv other.csv --dry-run
        id collect kelp --network cobalt-heron --csv other.csv --column id=Kennung name=Name format=Art platform=System --separator ; --dry-run
        id collect kelp --network cobalt-heron --csv other.csv --column nothing
        id collect kelp --network cobalt-heron --csv other.csv --column colour=Art
        id collect kelp --network cobalt-heron --csv tabs.tsv --separator tab --yes
        id collect kelp --network cobalt-heron --csv sure.csv --encoding latin-15
        id collect kelp --network cobalt-heron --csv sure.csv --encoding utf-8 --accept-names --dry-run
        id list kelp
      `);
      shell.write({
        'latin.csv': new Uint8Array([
          ...new TextEncoder().encode(`${head}\nCH-U-310772-FOOT0004,caf`),
          0x8e,
          0x0a,
        ]),
      });
      await shell.type('id collect kelp --network cobalt-heron --csv latin.csv');
      await shell.type('id collect kelp --network cobalt-heron --csv latin.csv --dry-run', { answer: '1' });
      await shell.type('id collect kelp --network cobalt-heron --csv latin.csv --dry-run', { answer: '9' });
      await shell.type('id collect kelp --network cobalt-heron');
    }));

  it('units that are created, adopted or settled', () =>
    typedBesidePartner('provisioned', async (shell) => {
      await recorded(shell, {
        networks: {},
        placements: { page: open, footer: placementOf({ 'cobalt-heron': {} }, 'banner') },
      });
      await shell.type('provision kelp', { answer: 'no' });
      await shell.type('provision kelp --platform ios', { answer: 'y' });
      await shell.type(`
        provision kelp --network marlstone
        provision kelp --platform android --names "{title} {placement}" --yes --json
        provision kelp --platform android --names "{nothing}"
        placement set kelp page --timeout 5s
        id list kelp
        id set kelp CH-U-310772-ZZZZ9999 --network cobalt-heron --platform ios --placement page
        provision kelp --dry-run
        provision kelp --settle roster --dry-run
        provision kelp --settle partner --dry-run --json
        provision kelp --settle partner --yes
        provision kelp --dry-run
        steps kelp --platform ios --network cobalt-heron
      `);
      await shell.type(
        'steps kelp --platform android --tick terms --network cobalt-heron --note "Done on Monday."',
      );
      await shell.type('steps kelp --platform android --untick terms --network cobalt-heron --next');
    }));

  it('accounts, faults and listings at the simulated partner', () =>
    typedBesidePartner('partner-set-up', async (shell, partner) => {
      await recorded(shell, { networks: kelp().networks });
      const card = (url: string, token = partner.token) =>
        writeFileSync(join(shell.home, 'partner.json'), JSON.stringify({ url, token }));
      await shell.type('partner crawl cobalt-heron');
      card(partner.url);
      await shell.type(`
        partner open-accounts "Saltmarsh Software" --json
        partner open-accounts "Saltmarsh Software"
        partner faults cobalt-heron --kinds error
        partner faults cobalt-heron --kinds timeout --every 0
        partner faults nobody
        partner market cobalt-heron
        partner market cobalt-heron --fill 60
        partner market cobalt-heron --latency 0
        partner market cobalt-heron --latency 60001
        partner device nobody pixel
        partner device tallowfield pixel
        partner lift tallowfield
        partner lift nobody
        partner accept cobalt-heron CH-A-310772-QK4T8W2N
        partner accept nobody x
        partner list-app ios example.brine.kelp --name Kelp
        partner list-app ios example.brine.kelp --name Kelp --site brine.example --at ${partner.url}/none
        partner list-app windows example.brine.kelp --name Kelp
        partner crawl cobalt-heron
        partner crawl cobalt-heron --json
        partner crawl nobody
        title look-up kelp
        partner incident cobalt-heron --what cheaper --app CH-I-310772-M6R9V3XC --from 2026-05-01 --to 2026-05-09 --left 40
        partner incident cobalt-heron --what cheaper --app x --unit y --from 2026-05-01
        partner incident cobalt-heron --what louder --app x --from 2026-05-01
        partner report cobalt-heron
        partner report cobalt-heron --days 0
        partner clock --advance 90s
        partner clock --advance 30m
        partner clock --advance 1d
        partner clock --advance 1w
        partner clock --now never
      `);
      card(partner.url, 'wrong');
      await shell.type('partner clock\npartner crawl cobalt-heron');
      card('http://127.0.0.1:1');
      await shell.type('partner clock\npartner open-accounts X --network cobalt-heron');
      writeFileSync(join(shell.home, 'partner.json'), 'nonsense');
      await shell.type('partner clock');
    }));
});
