import { Option, type Command } from 'commander';
import { groupNames } from '../../api/tally.js';
import { platformNames } from '../../core/words/names.js';
import { json, type Group, type GroupContext } from './group.js';

const work = () => import('../commands/tally.js');

/** Daily numbers: what placements earn. */
export const tallyCommands: Group = (program, context) => {
  const tally = program
    .command('tally')
    .description('what placements earn: import, fetch, imports, release, rates, show, compare, silent');
  importCommand(tally, context);
  fetchCommand(tally, context);
  importsCommand(tally, context);
  releaseCommand(tally, context);
  ratesCommand(tally, context);
  showCommand(tally, context);
  compareCommand(tally, context);
  silentCommand(tally, context);
};

const inOption = () => new Option('--in <currency>', 'convert to this currency, at the imported rates');
const allOption = () => new Option('--all', 'all titles');

function importCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('import')
    .description('import tables of daily numbers; rows that were imported before do not count twice')
    .argument('<files...>', 'CSV files of any length; - for standard input')
    .requiredOption('-n, --network <network>', 'the network that the tables come from')
    .option('--column <columns...>', 'columns that have other names: unit="Ad unit" revenue=Earned')
    .option('--separator <character>', 'the character between values, or tab')
    .option(
      '--encoding <encoding>',
      'such as windows-1252 (default: UTF-8, or UTF-16 with a byte order mark)',
    )
    .addOption(json())
    .action((files: string[], options) =>
      end(work().then(({ importTallies }) => importTallies(io, paint, files, options))),
    );
}

function fetchCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('fetch')
    .description('fetch daily numbers from networks, from where the last fetch ended')
    .option('-n, --network <networks...>', 'only these networks')
    .option('--from <day>', 'the first day, such as 2026-10-01')
    .option('--to <day>', 'the last day (default: yesterday)')
    .addOption(json())
    .action((options) => end(work().then(({ fetchTallies }) => fetchTallies(io, paint, options))));
}

function importsCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('imports')
    .description('list imports, newest first')
    .addOption(json())
    .action((options) => end(work().then(({ listImports }) => listImports(io, paint, options))));
}

function releaseCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('release')
    .description('record the release day of a version; without a version, list the recorded ones')
    .argument('<title>')
    .argument('[version]')
    .addOption(new Option('--platform <platform>', 'the platform of the release').choices(platformNames))
    .option('--on <day>', 'the release day, such as 2026-10-01')
    .option('--drop', 'remove the release')
    .addOption(json())
    .action((title: string, version: string | undefined, options) =>
      end(work().then(({ release }) => release(io, paint, title, version, options))),
    );
}

function ratesCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('rates')
    .description('import daily exchange rates from a table: day, currency, base, rate')
    .argument('<file>', 'a CSV file; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ setRates }) => setRates(io, paint, file, options))),
    );
}

function showCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('show')
    .description('show requests, fill, impressions, clicks and revenue, with totals')
    .argument('[title]')
    .addOption(allOption())
    .addOption(new Option('--by <what>', 'what each row stands for').choices(groupNames).default('placement'))
    .option('--from <day>', 'the first day, such as 2026-10-01')
    .option('--to <day>', 'the last day')
    .option('--days <days>', '28d for the last 28 days on record (default), or 2026-10-01..2026-10-07')
    .addOption(inOption())
    .addOption(new Option('--csv', 'print CSV').conflicts('json'))
    .addOption(json())
    .action((title: string | undefined, options) =>
      end(work().then(({ showTally }) => showTally(io, paint, title, options))),
    );
}

function compareCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('compare')
    .description('explain why revenue changed: volume, fill and price, largest change first')
    .argument('[title]')
    .addOption(allOption())
    .option('--this <days>', '7d for the last 7 days on record, or 2026-10-01..2026-10-07', '7d')
    .option('--against <days>', 'the days to compare with', 'previous')
    .addOption(inOption())
    .addOption(json())
    .action((title: string | undefined, options) =>
      end(work().then(({ compareTally }) => compareTally(io, paint, title, options))),
    );
}

function silentCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('silent')
    .description(
      'list placements that earn nothing or contradict the roster, with the money at stake, most first',
    )
    .argument('[title]', 'default: all titles')
    .addOption(json())
    .action((title: string | undefined, options) =>
      end(work().then(({ silentTally }) => silentTally(io, paint, title, options))),
    );
}
