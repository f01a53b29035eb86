import { json, titleOption, type Group } from './group.js';

/** Open formats. */
export const standardCommands: Group = (program, { io, paint, end }) => {
  const appads = program.command('appads').description('app-ads.txt: show, lint, merge, verify');
  const work = () => import('../commands/app-ads.js');
  appads
    .command('show')
    .description('print the file that the networks of all titles ask for')
    .addOption(json())
    .action((options) => end(work().then(({ showAppAds }) => showAppAds(io, paint, options))));
  appads
    .command('lint')
    .description('check a file; every fault with its line')
    .argument('<file>', 'an app-ads.txt file; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ lintAppAds }) => lintAppAds(io, paint, file, options))),
    );
  appads
    .command('merge')
    .description('bring what is missing into a file, and change nothing else')
    .argument('<file>')
    .option('-w, --write', 'write the file')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ mergeAppAds }) => mergeAppAds(io, paint, file, options))),
    );
  appads
    .command('verify')
    .description('hold what the developer site serves against what is needed, and say why it matters')
    .option('--url <url>', 'where the file is served (else /app-ads.txt of the publisher’s domain)')
    .addOption(json())
    .action((options) => end(work().then(({ verifyAppAds }) => verifyAppAds(io, paint, options))));

  const attribution = program
    .command('attribution')
    .description('SKAdNetwork lists: show, lint, merge, compare');
  const lists = () => import('../commands/attribution.js');
  attribution
    .command('show')
    .description('print the identifiers that the networks of all titles ask for')
    .addOption(json())
    .action((options) => end(lists().then(({ showAttribution }) => showAttribution(io, paint, options))));
  attribution
    .command('lint')
    .description('check a published list: a property list or JSON')
    .argument('<file>', 'a list; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(lists().then(({ lintAttribution }) => lintAttribution(io, paint, file, options))),
    );
  attribution
    .command('merge')
    .description('bring what is needed into a list or a property list, and change nothing else')
    .argument('<file>')
    .option('--list <files...>', 'published lists to take in too')
    .option('-w, --write', 'write the file')
    .addOption(json())
    .action((file: string, options) =>
      end(lists().then(({ mergeAttribution }) => mergeAttribution(io, paint, file, options))),
    );
  attribution
    .command('compare')
    .description('hold the list of a tree against what is asked for')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('--list <files...>', 'published lists that count too')
    .addOption(json())
    .action((dir: string, options) =>
      end(lists().then(({ compareAttribution }) => compareAttribution(io, paint, dir, options))),
    );
};
