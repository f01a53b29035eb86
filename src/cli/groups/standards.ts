import { json, type Group } from './group.js';

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
};
