import { Option } from 'commander';
import { usualPartnerPort, usualPort } from '../connect.js';
import { portNumber, type Group } from './group.js';

/** The service, the demo, and the documents made from the code. */
export const serviceCommands: Group = (program, { io, paint, end, whole }) => {
  const port = () =>
    new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPort);
  program
    .command('serve')
    .description('start the service and its console')
    .addOption(port())
    .option('--root <dirs...>', 'folders below which trees may be linked')
    .addOption(
      new Option('--log-level <level>').choices(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
    )
    .action((options) => end(import('../commands/serve.js').then(({ serve }) => serve(io, options))));
  program
    .command('demo')
    .description(
      'start the service with the demo’s roster and a copy of its trees, and the simulated partner',
    )
    .addOption(port())
    .addOption(
      new Option('--partner-port <port>', 'port of the simulated partner')
        .argParser(portNumber)
        .default(usualPartnerPort),
    )
    .option('--walk', 'go the whole way in the terminal without a person, then stop')
    .action((options) => end(import('../commands/demo.js').then(({ demo }) => demo(io, paint, options))));
  program
    .command('docs', { hidden: true })
    .description('write the pages and schemas that are made from the code')
    .requiredOption('--write <dir>')
    .option('--check', 'only say whether they are current')
    .action((options) =>
      end(import('../commands/docs.js').then(({ writeDocs }) => writeDocs(io, whole(), options))),
    );
};
