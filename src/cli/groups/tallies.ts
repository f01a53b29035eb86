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

const inOption = () => new Option('--in <currency>', 'convert into a currency, by the rates on record');
const allOption = () => new Option('--all', 'all titles');

function importCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('import')
    .description('bring tables of daily numbers in; what is on record already does not count twice')
    .argument('<files...>', 'CSV files of any length; - for standard input')
    .requiredOption('-n, --network <network>', 'whose tables they are')
    .option('--column <columns...>', 'columns that are called otherwise: unit="Ad unit" revenue=Earned')
    .option('--separator <character>', 'what separates values; tab for a tabulator')
    .option('--encoding <encoding>', 'such as windows-1252 (else UTF-8, or UTF-16 with a byte order mark)')
    .addOption(json())
    .action((files: string[], options) =>
      end(work().then(({ importTallies }) => importTallies(io, paint, files, options))),
    );
}

function fetchCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('fetch')
    .description('ask networks for their daily numbers, from where the last fetch ended')
    .option('-n, --network <networks...>', 'only these networks')
    .option('--from <day>', 'the first day, such as 2026-10-01')
    .option('--to <day>', 'the last day (else yesterday)')
    .addOption(json())
    .action((options) => end(work().then(({ fetchTallies }) => fetchTallies(io, paint, options))));
}

function importsCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('imports')
    .description('list what was brought in, the newest first')
    .addOption(json())
    .action((options) => end(work().then(({ listImports }) => listImports(io, paint, options))));
}

function releaseCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('release')
    .description('note the day on which a version went out; without a version, list those that are noted')
    .argument('<title>')
    .argument('[version]')
    .addOption(new Option('--platform <platform>').choices(platformNames))
    .option('--on <day>', 'the day, such as 2026-10-01')
    .option('--drop', 'forget the release')
    .addOption(json())
    .action((title: string, version: string | undefined, options) =>
      end(work().then(({ release }) => release(io, paint, title, version, options))),
    );
}

function ratesCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('rates')
    .description('bring a table of daily rates of currencies in: day, currency, base, rate')
    .argument('<file>', 'a CSV file; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(work().then(({ setRates }) => setRates(io, paint, file, options))),
    );
}

function showCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('show')
    .description('requests, fill, impressions, clicks and revenue, with totals')
    .argument('[title]')
    .addOption(allOption())
    .addOption(new Option('--by <what>', 'what the rows are').choices(groupNames).default('placement'))
    .option('--from <day>', 'the first day, such as 2026-10-01')
    .option('--to <day>', 'the last day')
    .option('--days <days>', '28d for the last days on record (as usual), or 2026-10-01..2026-10-07')
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
    .description('say why revenue changed: volume, fill and price, the largest change first')
    .argument('[title]')
    .addOption(allOption())
    .option('--this <days>', '7d for the last days on record, or 2026-10-01..2026-10-07', '7d')
    .option('--against <days>', 'days to compare with', 'previous')
    .addOption(inOption())
    .addOption(json())
    .action((title: string | undefined, options) =>
      end(work().then(({ compareTally }) => compareTally(io, paint, title, options))),
    );
}

function silentCommand(tally: Command, { io, paint, end }: GroupContext): void {
  tally
    .command('silent')
    .description('list what is silent or contradicts the record, with the money at stake, the most first')
    .argument('[title]', 'else all titles')
    .addOption(json())
    .action((title: string | undefined, options) =>
      end(work().then(({ silentTally }) => silentTally(io, paint, title, options))),
    );
}
