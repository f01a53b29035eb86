import { Argument, type Command } from 'commander';
import { shells } from '../completion/shells.js';
import { CommandError, exit } from '../io.js';
import { type Group, type GroupContext } from './group.js';

/** How commands are used, and what a shell needs to complete them. */
export const helpCommands: Group = (program, context) => {
  program.helpCommand(false);
  program
    .command('help')
    .description('say how a command is used: syndexa help title add')
    .argument('[command...]')
    .action((names: string[]) => commandAt(program, names).outputHelp());
  completionCommand(program, context);
};

function commandAt(program: Command, names: readonly string[]): Command {
  return names.reduce((at, name) => {
    const found = at.commands.find((command) => command.name() === name);
    if (found) return found;
    throw new CommandError(
      `There is no command ${names.join(' ')}.`,
      exit.wrongUse,
      `syndexa${at === program ? '' : ` ${at.name()}`} --help lists the commands.`,
    );
  }, program);
}

function completionCommand(program: Command, { io, end, whole }: GroupContext): void {
  program
    .command('completion')
    .description('print what makes a shell complete commands, options, titles and networks')
    .addArgument(new Argument('<shell>').choices(Object.keys(shells)))
    .addHelpText(
      'after',
      `\nTo have it in every new shell:
  bash   syndexa completion bash >> ~/.bash_completion
  zsh    syndexa completion zsh > "\${fpath[1]}/_syndexa"
  fish   syndexa completion fish > ~/.config/fish/completions/syndexa.fish\n`,
    )
    .action((shell: keyof typeof shells) => io.raw(shells[shell]));
  program
    .command('complete', { hidden: true })
    .description('say what a word may be completed to; for shells')
    .helpOption(false)
    .allowUnknownOption()
    .argument('[words...]')
    .action((words: string[]) =>
      end(import('../completion/complete.js').then(({ complete }) => complete(io, whole(), words))),
    );
}
