import { Option, type Command } from 'commander';
import {
  anchorNames,
  audienceNames,
  formatNames,
  platformNames,
  settingNames,
  sizeNames,
} from '../../core/words/names.js';
import { json, oneOf, wholeNumber, type Group, type GroupContext } from './group.js';

const titles = () => import('../commands/titles.js');
const placements = () => import('../commands/placements.js');
const titleFields = (command: Command) =>
  command
    .argument('<title>', 'short name: small letters, digits and dashes')
    .option('--name <name>', 'the name people see')
    .option('--android <identifier>', 'application ID')
    .option('--ios <identifier>', 'bundle ID')
    .option(
      '--module <platform=module...>',
      'the module, as a survey names it, where several apps of a tree have one identifier',
    )
    .option('--tracking <sentence>', 'iOS: what the system says when it asks for permission to track')
    .addOption(new Option('--audience <audience>').choices(audienceNames))
    .option('--test <names...>', 'build types, configurations, flavours or variants for testing')
    .option('--production <names...>', 'those that ship')
    .addOption(json());
const placementFields = (command: Command) =>
  command
    .argument('<title>')
    .argument('<placement>', 'a name that tells place and format, such as tide-list-footer')
    .addOption(new Option('--format <format>').argParser(oneOf('format', formatNames)))
    .option('--where <words>', 'where in the title it is shown')
    .option('--refresh <time>', 'managed, off, or a time such as 60s')
    .option('--first <items>', 'in a list: so many items before the first ad', wholeNumber(0, 1000))
    .option('--every <items>', 'in a list: an ad after every so many items', wholeNumber(1, 1000))
    .addOption(new Option('--size <size>', 'the size of a banner').choices(sizeNames))
    .addOption(new Option('--anchor <anchor>', 'where a banner is held').choices(anchorNames))
    .option('--content <kinds...>', 'text, image, video')
    .option('--cap <cap>', 'how often it is shown at most: "3 per 1d", or 3 without a period')
    .option('--timeout <time>', 'how long the app waits for an ad, such as 5s')
    .option('--reward <reward>', 'amount and item: "1 day of storm charts"')
    .addOption(new Option('--skippable <answer>', 'whether an ad may be skipped').choices(['yes', 'no']))
    .addOption(new Option('--end-card <answer>', 'whether a card follows a video').choices(['yes', 'no']))
    .option('--network <networks...>', 'networks that fill it')
    .option('--fallback <networks...>', 'networks in the order in which they are tried')
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
    .description('show what is to be done for each edition and network, in order, with what shows it')
    .argument('<title>')
    .addOption(new Option('--platform <platform>', 'only this edition').choices(platformNames))
    .option('--network <network>', 'only this network')
    .option('--next', 'only what is to be done now')
    .option('--tick <step>', 'say that a step is done which cannot be seen from here')
    .option('--untick <step>', 'take that back')
    .option('--note <words>', 'with --tick: what there is to say of it')
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
      'draft a title from trees that exist: editions, stages, app IDs, placements, each with its evidence',
    )
    .argument('<dir...>', 'folders of source trees')
    .option('--id <title>', 'short name of the draft')
    .option('--name <name>', 'the name people see')
    .option('--out <file>', 'write the draft to a new file, to be edited')
    .option('--yes', 'take the draft into the roster as it is')
    .addOption(json())
    .action((directories: string[], options) =>
      end(import('../commands/adopt.js').then(({ adopt }) => adopt(io, paint, directories, options))),
    );
}

function titleTakeCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('take')
    .description('take an edited draft into the roster')
    .argument('<file>', 'roster document with the draft; - for standard input')
    .addOption(json())
    .action((file: string, options) =>
      end(import('../commands/adopt.js').then(({ take }) => take(io, file, options))),
    );
}

function titleSetCommand(title: Command, { io, paint, end }: GroupContext): void {
  titleFields(title.command('set').description('change a title'))
    .option('--leave <network>', 'take a network out of the title, with all its IDs')
    .option('-y, --yes', 'with --leave: do not ask')
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
    .description('take a title out')
    .argument('<title>')
    .option('-y, --yes', 'do not ask')
    .addOption(json())
    .action((id: string, options) => end(titles().then(({ removeTitle }) => removeTitle(io, id, options))));
}

function titleHistoryCommand(title: Command, { io, end }: GroupContext): void {
  title
    .command('history')
    .description('say what changed: who, when, what was, what is')
    .argument('<title>')
    .addOption(json())
    .option('--revert <revision>', 'take this change back')
    .action((id: string, options) => end(titles().then(({ titleHistory }) => titleHistory(io, id, options))));
}

function titleLookUpCommand(title: Command, { io, paint, end }: GroupContext): void {
  title
    .command('look-up')
    .description('say what the store lists under the title’s identifiers')
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
    .addOption(new Option('--clear <settings...>', 'take these settings out').choices(settingNames))
    .action((id: string, name: string, options) =>
      end(placements().then(({ putPlacement }) => putPlacement(io, id, name, options, false))),
    );
}

function placementRemoveCommand(placement: Command, { io, end }: GroupContext): void {
  placement
    .command('remove')
    .description('take a placement out')
    .argument('<title>')
    .argument('<placement>')
    .addOption(json())
    .action((id: string, name: string, options) =>
      end(placements().then(({ removePlacement }) => removePlacement(io, id, name, options))),
    );
}
