import { InvalidArgumentError, Option, type Command } from 'commander';
import { players, type PlayerName } from '../../core/rehearsal/tags/choose.js';
import { actionNames, type Action, type ActionName } from '../../core/rehearsal/tags/playback.js';
import { json, wholeNumber, type Group, type GroupContext } from './group.js';

const work = () => import('../commands/tags.js');

/** VAST tags. */
export const tagCommands: Group = (program, context) => {
  const tag = program.command('tag').description('VAST tags: show, play, lint');
  tagShowCommand(tag, context);
  tagPlayCommand(tag, context);
  tagLintCommand(tag, context);
};

function tagShowCommand(tag: Command, { io, paint, end }: GroupContext): void {
  withTag(tag.command('show'))
    .description('follow a tag to its ads, and check every document on the way')
    .addOption(json())
    .action((address: string, options: Options) =>
      end(
        work().then(({ showTag }) => showTag(io, paint, address, { ...options, allow: options.allow ?? [] })),
      ),
    );
}

function tagPlayCommand(tag: Command, { io, paint, end }: GroupContext): void {
  withTag(tag.command('play'))
    .description('play a tag as a player would, and list when each tracker is called')
    .option(
      '--do <action@time...>',
      `actions of the user and the device, such as pause@5s: ${actionNames.join(', ')}`,
      (text: string, known: Action[] | undefined) => [...(known ?? []), actionOf(text)],
    )
    .option('--fire', 'call the trackers, but only on the simulated partner and hosts given with --allow')
    .addOption(json())
    .action(
      (address: string, { do: actions = [], ...options }: Options & { do?: Action[]; fire?: boolean }) =>
        end(
          work().then(({ playTag }) =>
            playTag(io, paint, address, { ...options, allow: options.allow ?? [], actions }),
          ),
        ),
    );
}

function tagLintCommand(tag: Command, { io, paint, end }: GroupContext): void {
  tag
    .command('lint')
    .description('check the tag URLs in the roster')
    .option('-t, --title <title>', 'only the tags of this title')
    .addOption(json())
    .action((options: { title?: string; json?: boolean }) =>
      end(work().then(({ lintTags }) => lintTags(io, paint, options))),
    );
}

interface Options {
  device: PlayerName;
  bitrate?: number;
  wrappers: number;
  media: boolean;
  partner?: boolean;
  allow?: string[];
  json?: boolean;
}

/** What both commands take. */
function withTag(command: Command): Command {
  return command
    .argument('<address>', 'the address of a tag, or a file; - for standard input')
    .addOption(
      new Option('--device <device>', 'the device to play it on')
        .choices(Object.keys(players))
        .default('phone'),
    )
    .option('--bitrate <kbps>', 'the bandwidth, in kilobits per second', wholeNumber(1, 1_000_000))
    .option('--wrappers <count>', 'how many wrappers to follow at most', wholeNumber(0, 20), 5)
    .option('--no-media', 'do not check whether media files are available')
    .option('--partner', 'fetch tags on .example hosts from the simulated partner')
    .option('--allow <hosts...>', 'private hosts that may be fetched from, and hosts that --fire may call');
}

/** `pause@5s`, `resume@7500ms`, `skip@6`. */
function actionOf(text: string): Action {
  const [, name = '', number = '', unit = 's'] =
    /^([a-z-]+)@(\d{1,6}(?:\.\d{1,3})?)(s|ms)?$/.exec(text) ?? [];
  const known = (actionNames as readonly string[]).includes(name);
  if (!known || number === '')
    throw new InvalidArgumentError(
      `${JSON.stringify(text)} is not an action with a time. Write it like pause@5s; the actions are ${actionNames.join(', ')}.`,
    );
  return { do: name as ActionName, at: Math.round(Number(number) * (unit === 's' ? 1000 : 1)) };
}
