import { Option, type Command } from 'commander';
import { severityNames } from '../../core/words/names.js';
import { json, titleOption, type Group, type GroupContext } from './group.js';

const trees = () => import('../commands/trees.js');
const wiring = () => import('../commands/wire.js');

/** Commands that read and write source trees. */
export const treeCommands: Group = (program, context) => {
  surveyCommand(program, context);
  checkCommand(program, context);
  acceptCommand(program, context);
  wireCommand(program, context);
  unwireCommand(program, context);
  undoCommand(program, context);
  placebookCommand(program, context);
};

function surveyCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('survey')
    .description('show what a tree contains today: every fact with its place and evidence; needs no roster')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option(
      '--explain <words>',
      'explain the facts that match these words: a kind, a network, an ID, path:line',
    )
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ survey }) => survey(io, paint, dir, options))));
}

function checkCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('check')
    .description('report what is wrong with a tree')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .addOption(
      new Option('--fail-on <severity>', 'exit with 1 when there are findings of this severity or above')
        .choices([...severityNames, 'never'])
        .default('blocker'),
    )
    .addOption(
      new Option('--format <format>', 'output format')
        .choices(['text', 'json', 'sarif', 'junit'])
        .default('text'),
    )
    .option(
      '--against <snapshot>',
      'show only findings that are new since an earlier check, named by its snapshot',
    )
    .option('--any-title', 'check a tree that matches no title, or whose title uses no network')
    .option('--verbose', 'show every finding in full: evidence, fingerprint, advice')
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ check }) => check(io, paint, dir, options))));
}

function acceptCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('accept')
    .description('accept a finding until a day, with a reason: it is still shown, but no longer counts')
    .argument('[fingerprint]', 'the fingerprint that check --verbose prints')
    .requiredOption('-t, --title <title>', 'the title')
    .option('--reason <words>', 'why it is acceptable')
    .option('--until <day>', 'the last day of the acceptance, such as 2027-03-31')
    .option('--withdraw', 'withdraw the acceptance')
    .option('--list', 'list the accepted findings')
    .addOption(json())
    .action((fingerprint: string | undefined, options) =>
      end(import('../commands/accept.js').then(({ accept }) => accept(io, paint, fingerprint, options))),
    );
}

function wireCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('wire')
    .description('show the smallest edits that make a tree agree with the roster; write them with --write')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('-w, --write', 'write the edits: all files, or none')
    .option('--rule <rule...>', 'only edits that fix findings of these rules')
    .option('--network <network...>', 'only edits for these networks')
    .option('--variant <variant...>', 'only edits for these variants')
    .option('--part <part...>', 'only these parts of the wiring, such as android/cobalt-heron/app-id')
    .option('--raise-sdk', 'raise SDK levels that are too low for a network')
    .option('--call-sites', 'replace IDs of the roster in code by references to the placebook')
    .option('--file <path...>', 'library and companion files from a network’s console')
    .option('--force', 'also write read-only files')
    .option('--full', 'print new files in full, even in a terminal')
    .addOption(json())
    .action((dir: string, options) => end(wiring().then((all) => all.wire(io, paint, dir, options))));
}

function unwireCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('unwire')
    .description('show the edits that take a network out of a tree; write them with --write')
    .argument('<network>')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('-w, --write', 'write the edits: all files, or none')
    .option('--force', 'also write read-only files')
    .option('--full', 'print new files in full, even in a terminal')
    .addOption(json())
    .action((network: string, dir: string, options) =>
      end(wiring().then((all) => all.unwire(io, paint, network, dir, options))),
    );
}

function undoCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('undo')
    .description('undo the last write into a tree, byte for byte, even if it was interrupted')
    .argument('<dir>', 'folder of a source tree')
    .option('--list', 'list the writes that can be undone')
    .option('--force', 'also write read-only files')
    .addOption(json())
    .action((dir: string, options) =>
      end(import('../commands/undo.js').then(({ undo }) => undo(io, paint, dir, options))),
    );
}

function placebookCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('placebook')
    .description('write only the generated placement code, or check whether it is current')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('--check', 'exit with 1 when a placebook is missing or out of date')
    .option('-w, --write', 'write it')
    .option('--force', 'also write read-only files')
    .option('--full', 'print new files in full, even in a terminal')
    .addOption(json())
    .action((dir: string, options) =>
      end(import('../commands/placebook.js').then(({ placebook }) => placebook(io, paint, dir, options))),
    );
}
