import { Option, type Command } from 'commander';
import {
  anchorNames,
  audienceNames,
  formatNames,
  platformNames,
  settingNames,
  sizeNames,
} from '../../core/words/names.js';
import { json, wholeNumber, type Group, type GroupContext } from './group.js';

const titles = () => import('../commands/titles.js');
const placements = () => import('../commands/placements.js');
const titleFields = (command: Command) =>
  command
    .argument('<title>', 'short name: small letters, digits and dashes')
    .option('--name <name>', 'display name')
    .option('--android <identifier>', 'application ID')
    .option('--ios <identifier>', 'bundle ID')
    .option(
      '--module <platform=module...>',
      'the module, as survey names it, when several apps in a tree share an identifier',
    )
    .option('--tracking <sentence>', 'iOS: the text of the system prompt that asks for permission to track')
    .addOption(new Option('--audience <audience>', 'whom the title is for').choices(audienceNames))
    .option('--test <names...>', 'build types, configurations, flavours or variants for testing')
    .option('--production <names...>', 'build types, configurations, flavours or variants that ship')
    .addOption(json());
const placementFields = (command: Command) =>
  command
    .argument('<title>')
    .argument('<placement>', 'a name that says place and format, such as tide-list-footer')
    .addOption(new Option('--format <format>', 'the ad format').choices(formatNames))
    .option('--where <words>', 'where the title shows it')
    .option('--refresh <time>', 'managed, off, or a time such as 60s')
    .option('--first <items>', 'in a list: items before the first ad', wholeNumber(0, 1000))
    .option('--every <items>', 'in a list: items between two ads', wholeNumber(1, 1000))
    .addOption(new Option('--size <size>', 'the size of a banner').choices(sizeNames))
    .addOption(new Option('--anchor <anchor>', 'where a banner is anchored').choices(anchorNames))
    .option('--content <kinds...>', 'text, image, video')
    .option('--cap <cap>', 'frequency cap: "3 per 1d", or 3 without a period')
    .option('--timeout <time>', 'how long the app waits for an ad, such as 5s')
    .option('--reward <reward>', 'amount and item, such as "1 day of storm charts"')
    .addOption(new Option('--skippable <answer>', 'whether the user may skip an ad').choices(['yes', 'no']))
    .addOption(
      new Option('--end-card <answer>', 'whether an end card follows a video').choices(['yes', 'no']),
    )
    .option('--network <networks...>', 'networks that fill it')
    .option('--fallback <networks...>', 'networks to try, in this order')
    .addOption(json());

/** The board, titles and placements. */
export const titleCommands: Group = (program, context) => {
  boardCommand(program, context);
  stepsCommand(program, context);
  const title = program
    .command('title')
    .description('titles: list, show, add, adopt, take, set, remove, look-up, link, history');
  titleListCommand(title, context);
  titleShowCommand(title, context);
  titleAddCommand(title, context);
  titleAdoptCommand(title, context);
  titleTakeCommand(title, context);
  titleSetCommand(title, context);
  titleRemoveCommand(title, context);
  titleHistoryCommand(title, context);
  titleLookUpCommand(title, context);
  titleLinkCommand(title, context);
  const placement = program.command('placement').description('placements: list, add, set, remove');
  placementListCommand(placement, context);
  placementAddCommand(placement, context);
  placementSetCommand(placement, context);
  placementRemoveCommand(placement, context);
};

function boardCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('board')
    .description('show which ID each build carries: test and production, Android and iOS, side by side')
    .argument('<title>')
    .addOption(json())
    .action((title: string, options) => end(titles().then(({ board }) => board(io, paint, title, options))));
}

function stepsCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('steps')
    .description('show the steps for each edition and network, in order, with the evidence for each')
    .argument('<title>')
    .addOption(new Option('--platform <platform>', 'only this edition').choices(platformNames))
    .option('--network <network>', 'only this network')
    .option('--next', 'only the steps to do now')
    .option('--tick <step>', 'mark a step as done that no tree or list can show')
    .option('--untick <step>', 'remove the mark')
    .option('--note <words>', 'with --tick: a note to keep with the step')
    .addOption(json())
    .action((id: string, options) =>
      end(import('../commands/steps.js').then(({ steps }) => steps(io, paint, id, options))),
    );
}

function titleListCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('list')
    .description('list the titles')
    .addOption(json())
    .action((options) => end(titles().then(({ listTitles }) => listTitles(io, options))));
}

function titleShowCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('show')
    .description('show one title')
    .argument('<title>')
    .addOption(json())
    .action((id: string, options) => end(titles().then(({ showTitle }) => showTitle(io, id, options))));
}

function titleAddCommand(title: Command, { io, end }: GroupContext): void {
  titleFields(title.command('add').description('add a title')).action((id: string, options) =>
    end(titles().then(({ addTitle }) => addTitle(io, id, options))),
  );
}

function titleAdoptCommand(title: Command, { io, paint, end }: GroupContext): void {
  title
    .command('adopt')
    .description(
      'draft a title from existing trees: editions, stages, app IDs, placements, each with its evidence',
    )
    .argument('<dir...>', 'folders of source trees')
    .option('--id <title>', 'ID of the draft: small letters, digits and dashes')
    .option('--name <name>', 'display name')
    .option('--out <file>', 'write the draft to a new file for editing')
    .option('--yes', 'add the draft to the roster as it is')
    .addOption(json())
    .action((directories: string[], options) =>
      end(import('../commands/adopt.js').then(({ adopt }) => adopt(io, paint, directories, options))),
    );
}

function titleTakeCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('take')
    .description('add an edited draft to the roster')
    .argument('<file>', 'roster document with the draft; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(import('../commands/adopt.js').then(({ take }) => take(io, file, options))),
    );
}

function titleSetCommand(title: Command, { io, paint, end }: GroupContext): void {
  titleFields(title.command('set').description('change a title'))
    .option('--leave <network>', 'remove a network from the title, with all its IDs')
    .option('-y, --yes', 'with --leave: do not ask for confirmation')
    .action((id: string, options: { leave?: string; yes?: boolean; json?: boolean }) =>
      end(
        titles().then(({ leaveNetwork, setTitle }) =>
          options.leave === undefined
            ? setTitle(io, id, options)
            : leaveNetwork(io, paint, id, options.leave, options),
        ),
      ),
    );
}

function titleRemoveCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('remove')
    .description('remove a title')
    .argument('<title>')
    .option('-y, --yes', 'do not ask for confirmation')
    .addOption(json())
    .action((id: string, options) => end(titles().then(({ removeTitle }) => removeTitle(io, id, options))));
}

function titleHistoryCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('history')
    .description(
      'show the history of a title: each change with its time, its author, and the old and new values',
    )
    .argument('<title>')
    .addOption(json())
    .option('--revert <revision>', 'revert this change')
    .action((id: string, options) => end(titles().then(({ titleHistory }) => titleHistory(io, id, options))));
}

function titleLookUpCommand(title: Command, { io, paint, end }: GroupContext): void {
  title
    .command('look-up')
    .description('show what the store lists under the title’s identifiers')
    .argument('<title>')
    .addOption(json())
    .action((id: string, options) =>
      end(import('../commands/steps.js').then(({ lookUp }) => lookUp(io, paint, id, options))),
    );
}

function titleLinkCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('link')
    .description('link a folder below one of the service’s roots, so that the console can read and wire it')
    .argument('<title>')
    .argument('<dir>')
    .addOption(json())
    .action((id: string, dir: string, options) =>
      end(
        Promise.all([titles(), import('node:path')]).then(([{ linkTitle }, { resolve }]) =>
          linkTitle(io, id, resolve(io.cwd, dir), options),
        ),
      ),
    );
}

function placementListCommand(placement: Command, { io, end }: GroupContext): void {
  placement
    .command('list')
    .description('list the placements of a title')
    .argument('<title>')
    .addOption(json())
    .action((id: string, options) =>
      end(placements().then(({ listPlacements }) => listPlacements(io, id, options))),
    );
}

function placementAddCommand(placement: Command, { io, end }: GroupContext): void {
  placementFields(placement.command('add').description('add a placement')).action(
    (id: string, name: string, options) =>
      end(placements().then(({ putPlacement }) => putPlacement(io, id, name, options, true))),
  );
}

function placementSetCommand(placement: Command, { io, end }: GroupContext): void {
  placementFields(placement.command('set').description('change a placement'))
    .addOption(new Option('--clear <settings...>', 'remove these settings').choices(settingNames))
    .action((id: string, name: string, options) =>
      end(placements().then(({ putPlacement }) => putPlacement(io, id, name, options, false))),
    );
}

function placementRemoveCommand(placement: Command, { io, end }: GroupContext): void {
  placement
    .command('remove')
    .description('remove a placement')
    .argument('<title>')
    .argument('<placement>')
    .addOption(json())
    .action((id: string, name: string, options) =>
      end(placements().then(({ removePlacement }) => removePlacement(io, id, name, options))),
    );
}
