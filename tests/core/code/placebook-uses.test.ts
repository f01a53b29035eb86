import { describe, expect, it } from 'vitest';
import { placebookUses } from '../../../src/core/code/placebook-uses.js';
import { grows } from '../../support/growth.js';

const uses = (code: string) => placebookUses(code, ['tide-footer', 'gift']).map(({ placement }) => placement);
const both = ['tide-footer', 'gift'];

describe('the placements that code names', () => {
  it.each([
    ['Kotlin', 'BannerView(this, Placebook.tideFooter.unit(Placebook.Network.MARLSTONE))', ['tide-footer']],
    ['Java', 'load(Placebook.TIDE_FOOTER.unit(network));', ['tide-footer']],
    ['Java, of a Kotlin object', 'load(Placebook.INSTANCE.getTideFooter().unit(network));', ['tide-footer']],
    ['C#', 'new Banner(Placebook.Gift.Unit(Placebook.Network.Marlstone))', ['gift']],
    ['Objective-C, a message', 'show([Placebook gift]);', ['gift']],
    ['Objective-C, a property', 'show(Placebook.gift.unit);', ['gift']],
    ['Swift, behind its module', 'load(Kelp.Placebook.gift)', ['gift']],
    ['over two lines', 'Placebook\n    .gift\n    .unit()', ['gift']],
    ['behind a namespace import', "load(ads.Placebook.gift);\nimport * as ads from '';", ['gift']],
    ['a member by itself', 'import static example.ads.Placebook.GIFT;', ['gift']],
    ['each of the list', 'for (const one of Placebook.all) load(one);', both],
    ['what is made of the whole', 'const { gift } = Placebook;', both],
    ['what it is handed to', 'register(Placebook)', both],
    ['another name for it', "import { Placebook as Units } from '';", both],
    ['another name for it, in C#', 'using Units = Kelp.Ads.Placebook;', both],
    ['its members without any name', 'import static example.ads.Placebook.*;', both],
    ['another name, when it is required', "const { Placebook: units } = require('');", both],
  ])('are found: %s', (_, code, placements) => {
    expect(uses(code)).toEqual(placements);
  });

  it.each([
    ["import { Placebook } from '';"],
    ["import {\n  Network,\n  Placebook,\n} from '';"],
    ['import example.brine.kelp.ads.Placebook'],
    ["export { Placebook } from '';"],
    ["const { Placebook, Network } = require('');"],
    ['@class Placebook;'],
    ['using Kelp.Placebook;'],
    ['if (Placebook.stage == Placebook.Stage.TEST) allow(Placebook.testDevices)'],
    ['start(Placebook.apps)'],
    ['MyPlacebook.gift; PlacebookReader.gift; $Placebook.gift'],
    ['Placebook.giftShop'],
  ])('are none in %j', (code) => {
    expect(uses(code)).toEqual([]);
  });
});

describe('code that means harm', () => {
  it.each([
    ['imports without end', (n: number) => 'import '.repeat(n / 7)],
    ['lists without end', (n: number) => 'import{Placebook,'.repeat(n / 17)],
    ['the placebook in one line', (n: number) => 'Placebook,'.repeat(n / 10)],
    ['the placebook and blanks', (n: number) => `Placebook${' '.repeat(90)}`.repeat(n / 99)],
    ['blanks alone', (n: number) => `Placebook${' '.repeat(n)}`],
    ['imports of it', (n: number) => 'import { Placebook } from "";'.repeat(n / 29)],
  ])('takes time that grows with its length: %s', (_, made) => {
    const placements = Array.from({ length: 40 }, (_, at) => `spot-${at}`);
    grows((length) => {
      const code = made(length);
      return () => placebookUses(code, placements);
    });
  });
});
