import { Option, type Command } from 'commander';
import { usualPartnerPort, usualPort } from '../connect.js';
import { roleNames } from '../../api/roles.js';
import { json, portNumber, type Group, type GroupContext } from './group.js';

const port = () =>
  new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPort);
const tokens = () => import('../commands/tokens.js');

/** The service, the demo, and the documents made from the code. */
export const serviceCommands: Group = (program, context) => {
  serveCommand(program, context);
  const token = program
    .command('token')
    .description('tokens for a service that others reach: add, list, revoke');
  tokenAddCommand(token, context);
  tokenListCommand(token, context);
  tokenRevokeCommand(token, context);
  demoCommand(program, context);
  docsCommand(program, context);
};

function serveCommand(program: Command, { io, end }: GroupContext): void {
  program
    .command('serve')
    .description('start the service and its console')
    .addOption(port())
    .option('--root <dirs...>', 'folders below which trees may be linked')
    .option('--listen <address>', 'another address than 127.0.0.1, for a team: asks everybody for a token')
    .option('--require-token', 'ask for tokens on 127.0.0.1 too, on a machine that several people use')
    .option('--host-name <names...>', 'names under which a proxy passes requests on')
    .option('--behind-proxy', 'take the address of a caller from the proxy in front (X-Forwarded-For)')
    .addOption(
      new Option('--log-level <level>').choices(['debug', 'info', 'warn', 'error', 'silent']).default('info'),
    )
    .action((options) => end(import('../commands/serve.js').then(({ serve }) => serve(io, options))));
}

function tokenAddCommand(token: Command, { io, paint, end }: GroupContext): void {
  token
    .command('add')
    .description('make a token; it is shown this once')
    .argument('<name>', 'whose it is, such as build-server')
    .addOption(new Option('--role <role>', 'what it may do').choices(roleNames).makeOptionMandatory())
    .addOption(json())
    .action((name: string, options) =>
      end(tokens().then(({ addToken }) => addToken(io, paint, name, options))),
    );
}

function tokenListCommand(token: Command, { io, paint, end }: GroupContext): void {
  token
    .command('list')
    .description('list the tokens: role, when each was made, last used, revoked')
    .addOption(json())
    .action((options) => end(tokens().then(({ listTokens }) => listTokens(io, paint, options))));
}

function tokenRevokeCommand(token: Command, { io, paint, end }: GroupContext): void {
  token
    .command('revoke')
    .description('let a token count no more, from the next request on')
    .argument('<name>')
    .action((name: string) => end(tokens().then(({ revokeToken }) => revokeToken(io, paint, name))));
}

function demoCommand(program: Command, { io, paint, end, run }: GroupContext): void {
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
    .action((options) =>
      end(import('../commands/demo.js').then(({ demo }) => demo(io, paint, options, run))),
    );
}

function docsCommand(program: Command, { io, end, whole }: GroupContext): void {
  program
    .command('docs', { hidden: true })
    .description('write the pages and schemas that are made from the code')
    .requiredOption('--write <dir>')
    .option('--check', 'only say whether they are current')
    .action((options) =>
      end(import('../commands/docs.js').then(({ writeDocs }) => writeDocs(io, whole(), options))),
    );
}
