import { Argument, Option, type Command } from 'commander';
import { platformNames } from '../../core/words/names.js';
import { usualPartnerPort } from '../connect.js';
import { json, portNumber, wholeNumber, type Group, type GroupContext } from './group.js';

const partners = () => import('../commands/partner.js');

/** The simulated partner. */
export const partnerCommands: Group = (program, context) => {
  const partner = program
    .command('partner')
    .description(
      'the simulated partner: start, open-accounts, accept, list-app, crawl, clock, faults, market, device, lift, incident, report',
    );
  partnerStartCommand(partner, context);
  partnerOpenAccountsCommand(partner, context);
  partnerAcceptCommand(partner, context);
  partnerListAppCommand(partner, context);
  partnerCrawlCommand(partner, context);
  partnerClockCommand(partner, context);
  partnerFaultsCommand(partner, context);
  partnerMarketCommand(partner, context);
  partnerDeviceCommand(partner, context);
  partnerLiftCommand(partner, context);
  partnerIncidentCommand(partner, context);
  partnerReportCommand(partner, context);
};

function partnerStartCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('start')
    .description('start the simulated partner in its own process')
    .addOption(
      new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPartnerPort),
    )
    .option('--seed <number>', 'the same seed gives the same IDs')
    .option('--fresh', 'discard the data of earlier runs')
    .action((options) => end(partners().then(({ startPartner }) => startPartner(io, paint, options))));
}

function partnerOpenAccountsCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('open-accounts')
    .description('open an account at each network, and store its key as a secret')
    .argument('<name>', 'the publisher’s name')
    .option('--network <networks...>', 'only these networks')
    .addOption(json())
    .action((name: string, options) =>
      end(partners().then(({ openAccounts }) => openAccounts(io, paint, name, options))),
    );
}

function partnerAcceptCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('accept')
    .description('accept a network’s terms for an app, as you would in its console')
    .argument('<network>')
    .argument('<app>', 'the app ID at the network')
    .action((network: string, app: string) =>
      end(partners().then(({ acceptTerms }) => acceptTerms(io, paint, network, app))),
    );
}

function partnerListAppCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('list-app')
    .description('list an application in the simulated store')
    .addArgument(new Argument('<platform>').choices(platformNames))
    .argument('<identifier>')
    .requiredOption('--name <name>', 'the name that the store shows')
    .option('--site <domain>', 'the developer site that the listing names')
    .option('--at <url>', 'the local address that serves this site')
    .action((platform: string, identifier: string, options) =>
      end(partners().then(({ listApp }) => listApp(io, platform, identifier, options))),
    );
}

function partnerCrawlCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('crawl')
    .description('show what the network’s crawler finds in app-ads.txt, app by app')
    .argument('<network>')
    .addOption(json())
    .action((network: string, options) =>
      end(partners().then(({ crawlSites }) => crawlSites(io, paint, network, options))),
    );
}

function partnerClockCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('clock')
    .description('set the partner’s clock, or move it forward')
    .option('--now <time>', 'the time, in ISO 8601')
    .option('--stand', 'with --now: stop the clock there')
    .option('--advance <time>', 'move forward by this much, such as 90m or 2h')
    .action((options) => end(partners().then(({ setClock }) => setClock(io, options))));
}

function partnerFaultsCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('faults')
    .description('inject faults into a network’s responses; without --kinds, stop injecting them')
    .argument('<network>')
    .option('--kinds <kinds...>', 'error, timeout, cut, html, empty, loop, shift, odd-ids')
    .option('--every <number>', 'inject a fault into every nth call', '3')
    .action((network: string, options) =>
      end(partners().then(({ setFaults }) => setFaults(io, network, options))),
    );
}

function partnerMarketCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('market')
    .description('set the fill rate and the latency of a network')
    .argument('<network>')
    .option('--fill <percent>', 'the fill rate, in percent', wholeNumber(0, 100))
    .option('--latency <ms>', 'the latency of responses, in milliseconds', wholeNumber(0, 60_000))
    .action((network: string, options: { fill?: number; latency?: number }) =>
      end(partners().then(({ setMarket }) => setMarket(io, network, options))),
    );
}

function partnerDeviceCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('device')
    .description('register a test device, which gets test ads for every unit')
    .argument('<network>')
    .argument('<device>', 'the ID of the device')
    .action((network: string, device: string) =>
      end(partners().then(({ registerDevice }) => registerDevice(io, paint, network, device))),
    );
}

function partnerLiftCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('lift')
    .description('lift the suspension of accounts that clicked on their own ads')
    .argument('<network>')
    .action((network: string) =>
      end(partners().then(({ liftSuspension }) => liftSuspension(io, paint, network))),
    );
}

function partnerIncidentCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('incident')
    .description('simulate an incident in the daily numbers of a unit, or of all units of an app')
    .argument('<network>')
    .addOption(
      new Option('--what <what>', 'no requests, no fill, few impressions, fewer requests, or a lower price')
        .choices(['silent', 'unfilled', 'unshown', 'fewer', 'cheaper'])
        .makeOptionMandatory(),
    )
    .option('--unit <id>', 'the unit')
    .option('--app <id>', 'all units of an app')
    .requiredOption('--from <day>', 'the first day, such as 2026-10-01')
    .option('--to <day>', 'the last day (default: no end)')
    .option(
      '--left <percent>',
      'with fewer and cheaper: the share that remains, in percent',
      wholeNumber(0, 100),
    )
    .action((network: string, options) =>
      end(partners().then(({ setIncident }) => setIncident(io, network, options))),
    );
}

function partnerReportCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('report')
    .description('print a network’s daily numbers as the table that its console exports')
    .argument('<network>')
    .option('--days <number>', 'how many days, up to yesterday', wholeNumber(1, 400), 30)
    .action((network: string, options: { days: number }) =>
      end(partners().then(({ printReport }) => printReport(io, network, options))),
    );
}
