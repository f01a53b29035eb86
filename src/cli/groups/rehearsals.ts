import { Option, type Command } from 'commander';
import { platformNames } from '../../core/words/names.js';
import type { RehearseOptions } from '../commands/rehearse.js';
import { json, titleOption, wholeNumber, type Group, type GroupContext } from './group.js';

const work = () => import('../commands/rehearse.js');

/** Rehearsals of ad calls. */
export const rehearsalCommands: Group = (program, context) => {
  rehearseCommand(program, context);
};

function rehearseCommand(program: Command, { io, paint, end }: GroupContext): void {
  program
    .command('rehearse')
    .description('run every ad call of a tree on a simulated device, against the simulated partner')
    .argument('[dir]', 'folder of a source tree')
    .addOption(titleOption())
    .option('--variant <variant...>', 'only these variants')
    .addOption(new Option('--platform <platform>', 'only this platform').choices(platformNames))
    .option('--placement <placement...>', 'only these placements')
    .option('--scenario <scenario>', 'the name of a scenario, or a file', 'first-session')
    .addOption(
      new Option('--seed <number>', 'the same seed gives the same session')
        .argParser(wholeNumber(0, 4_294_967_295))
        .default(1),
    )
    .addOption(new Option('--offline', 'the device has no connection').conflicts(['slow', 'noFill']))
    .option('--no-fill', 'no network fills a request')
    .option('--slow', 'ads take 12 seconds to arrive')
    .option('--trace', 'print what happens, in order')
    .option('--scenarios', 'list the built-in scenarios')
    .addOption(
      new Option('--format <format>', 'output format').choices(['text', 'json', 'junit']).default('text'),
    )
    .addOption(json())
    .action((dir: string | undefined, { fill, ...options }: RehearseOptions & { fill: boolean }) =>
      end(work().then(({ rehearse }) => rehearse(io, paint, dir, { ...options, noFill: !fill }))),
    );
}
