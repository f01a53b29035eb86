import type { Command } from 'commander';
import { json, titleOption, type Group, type GroupContext } from './group.js';

const work = () => import('../commands/app-ads.js');
const lists = () => import('../commands/attribution.js');

/** Open formats. */
export const standardCommands: Group = (program, context) => {
  const appads = program.command('appads').description('app-ads.txt: show, lint, merge, verify');
  appadsShowCommand(appads, context);
  appadsLintCommand(appads, context);
  appadsMergeCommand(appads, context);
  appadsVerifyCommand(appads, context);
  const attribution = program
    .command('attribution')
    .description('SKAdNetwork lists: show, lint, merge, compare');
  attributionShowCommand(attribution, context);
  attributionLintCommand(attribution, context);
  attributionMergeCommand(attribution, context);
  attributionCompareCommand(attribution, context);
};

function appadsShowCommand(appads: Command, { io, paint, end }: GroupContext): void {
  appads
    .command('show')
    .description('print the file that the networks of all titles require')
    .addOption(json())
    .action((options) => end(work().then(({ showAppAds }) => showAppAds(io, paint, options))));
}

function appadsLintCommand(appads: Command, { io, paint, end }: GroupContext): void {
  appads
    .command('lint')
    .description('check a file, and report every fault with its line')
    .argument('<file>', 'an app-ads.txt file; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ lintAppAds }) => lintAppAds(io, paint, file, options))),
    );
}

function appadsMergeCommand(appads: Command, { io, paint, end }: GroupContext): void {
  appads
    .command('merge')
    .description('add missing lines to a file, and change nothing else')
    .argument('<file>')
    .option('-w, --write', 'write the file')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ mergeAppAds }) => mergeAppAds(io, paint, file, options))),
    );
}

function appadsVerifyCommand(appads: Command, { io, paint, end }: GroupContext): void {
  appads
    .command('verify')
    .description('compare what the developer site serves with what is required')
    .option('--url <url>', 'the address of the file (default: /app-ads.txt on the publisher’s domain)')
    .addOption(json())
    .action((options) => end(work().then(({ verifyAppAds }) => verifyAppAds(io, paint, options))));
}

function attributionShowCommand(attribution: Command, { io, paint, end }: GroupContext): void {
  attribution
    .command('show')
    .description('print the identifiers that the networks of all titles require')
    .addOption(json())
    .action((options) => end(lists().then(({ showAttribution }) => showAttribution(io, paint, options))));
}

function attributionLintCommand(attribution: Command, { io, paint, end }: GroupContext): void {
  attribution
    .command('lint')
    .description('check a published list: a property list or JSON')
    .argument('<file>', 'a list; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(lists().then(({ lintAttribution }) => lintAttribution(io, paint, file, options))),
    );
}

function attributionMergeCommand(attribution: Command, { io, paint, end }: GroupContext): void {
  attribution
    .command('merge')
    .description('add missing identifiers to a list or a property list, and change nothing else')
    .argument('<file>')
    .option('--list <files...>', 'published lists to include')
    .option('-w, --write', 'write the file')
    .addOption(json())
    .action((file: string, options) =>
      end(lists().then(({ mergeAttribution }) => mergeAttribution(io, paint, file, options))),
    );
}

function attributionCompareCommand(attribution: Command, { io, paint, end }: GroupContext): void {
  attribution
    .command('compare')
    .description('compare the list of a tree with what networks require')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('--list <files...>', 'published lists to include')
    .addOption(json())
    .action((dir: string, options) =>
      end(lists().then(({ compareAttribution }) => compareAttribution(io, paint, dir, options))),
    );
}
