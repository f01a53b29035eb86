import { Option } from 'commander';
import { severityNames } from '../../core/network/names.js';
import { json, titleOption, type Group } from './group.js';

/** Commands that read and write source trees. */
export const treeCommands: Group = (program, { io, paint, end }) => {
  const trees = () => import('../commands/trees.js');
  program
    .command('survey')
    .description('say what is wired in a tree today: every fact with its place and evidence; needs no roster')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option(
      '--explain <words>',
      'explain in sentences the facts that these words fit: a kind, a network, an ID, path:line',
    )
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ survey }) => survey(io, paint, dir, options))));
  program
    .command('check')
    .description('say what is wrong with a tree')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .addOption(
      new Option('--fail-on <severity>', 'end with 1 when there are findings at or above this')
        .choices([...severityNames, 'never'])
        .default('blocker'),
    )
    .addOption(
      new Option('--format <format>', 'how findings are printed')
        .choices(['text', 'json', 'sarif', 'junit'])
        .default('text'),
    )
    .option(
      '--against <snapshot>',
      'show only what is new since an earlier check, by the snapshot that it printed',
    )
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ check }) => check(io, paint, dir, options))));
  program
    .command('accept')
    .description('accept a finding for a time, with a reason: it is shown and no longer counted')
    .argument('[fingerprint]', 'as check prints it')
    .requiredOption('-t, --title <title>', 'the title')
    .option('--reason <words>', 'why it may stay')
    .option('--until <day>', 'the last day on which it may, such as 2027-03-31')
    .option('--withdraw', 'take it back')
    .option('--list', 'list what was accepted')
    .addOption(json())
    .action((fingerprint: string | undefined, options) =>
      end(import('../commands/accept.js').then(({ accept }) => accept(io, paint, fingerprint, options))),
    );
  program
    .command('wire')
    .description('show the smallest edits that make a tree agree with the roster; write them with --write')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('-w, --write', 'write the edits: all files, or none')
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ wire }) => wire(io, paint, dir, options))));
};
