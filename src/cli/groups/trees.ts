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
    .description('say what is wired in a tree today: every fact with its place and evidence; needs no roster')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option(
      '--explain <words>',
      'explain in sentences the facts that these words fit: a kind, a network, an ID, path:line',
    )
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ survey }) => survey(io, paint, dir, options))));
}

function checkCommand(program: Command, { io, paint, end }: GroupContext): void {
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
    .option('--any-title', 'read a tree that fits no title, or whose title uses no network')
    .option('--verbose', 'show every finding in full: evidence, fingerprint, advice')
    .addOption(json())
    .action((dir: string, options) => end(trees().then(({ check }) => check(io, paint, dir, options))));
}

function acceptCommand(program: Command, { io, paint, end }: GroupContext): void {
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
}

function wireCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('wire')
    .description('show the smallest edits that make a tree agree with the roster; write them with --write')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('-w, --write', 'write the edits: all files, or none')
    .option('--rule <rule...>', 'only what fixes findings of these rules')
    .option('--network <network...>', 'only what these networks need')
    .option('--variant <variant...>', 'only what reaches these variants')
    .option('--part <part...>', 'only these parts, such as android/cobalt-heron/app-id')
    .option('--raise-sdk', 'raise SDK levels that a network finds too low')
    .option('--call-sites', 'replace IDs in code, which the roster knows, by references to the placebook')
    .option('--file <path...>', 'library and companion files that a network’s pages gave out')
    .option('--force', 'write files too that their owner made read-only')
    .option('--full', 'show new files whole in a terminal too')
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
    .option('--force', 'write files too that their owner made read-only')
    .option('--full', 'show new files whole in a terminal too')
    .addOption(json())
    .action((network: string, dir: string, options) =>
      end(wiring().then((all) => all.unwire(io, paint, network, dir, options))),
    );
}

function undoCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('undo')
    .description('take the last write into a tree back: every byte as it was; also one that was interrupted')
    .argument('<dir>', 'folder of a source tree')
    .option('--list', 'show the writes that can be taken back')
    .option('--force', 'write files too that their owner made read-only')
    .addOption(json())
    .action((dir: string, options) =>
      end(import('../commands/undo.js').then(({ undo }) => undo(io, paint, dir, options))),
    );
}

function placebookCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('placebook')
    .description('write the generated placement code alone, or say with --check whether it is current')
    .argument('<dir>', 'folder of a source tree')
    .addOption(titleOption())
    .option('--check', 'end with 1 when a placebook is missing or out of date')
    .option('-w, --write', 'write it')
    .option('--force', 'write files too that their owner made read-only')
    .option('--full', 'show new files whole in a terminal too')
    .addOption(json())
    .action((dir: string, options) =>
      end(import('../commands/placebook.js').then(({ placebook }) => placebook(io, paint, dir, options))),
    );
}
