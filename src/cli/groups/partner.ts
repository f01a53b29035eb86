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
    .description('start the simulated partner, a process of its own')
    .addOption(
      new Option('-p, --port <port>', 'port on 127.0.0.1').argParser(portNumber).default(usualPartnerPort),
    )
    .option('--seed <number>', 'the same seed gives the same IDs')
    .option('--fresh', 'forget the books of an earlier run')
    .action((options) => end(partners().then(({ startPartner }) => startPartner(io, paint, options))));
}

function partnerOpenAccountsCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('open-accounts')
    .description('open an account at each network, and keep its key as a secret')
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
    .description('accept the terms of a network for an app, as a person does on its page')
    .argument('<network>')
    .argument('<app>', 'the app ID at the network')
    .action((network: string, app: string) =>
      end(partners().then(({ acceptTerms }) => acceptTerms(io, paint, network, app))),
    );
}

function partnerListAppCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('list-app')
    .description('put an application into the simulated store')
    .addArgument(new Argument('<platform>').choices(platformNames))
    .argument('<identifier>')
    .requiredOption('--name <name>')
    .option('--site <domain>', 'the developer site that the listing names')
    .option('--at <url>', 'the local address at which that site is reached')
    .action((platform: string, identifier: string, options) =>
      end(partners().then(({ listApp }) => listApp(io, platform, identifier, options))),
    );
}

function partnerCrawlCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('crawl')
    .description('say what the network’s crawler finds in app-ads.txt, app by app')
    .argument('<network>')
    .addOption(json())
    .action((network: string, options) =>
      end(partners().then(({ crawlSites }) => crawlSites(io, paint, network, options))),
    );
}

function partnerClockCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('clock')
    .description('set the partner’s time, or move it on')
    .option('--now <time>', 'in ISO 8601')
    .option('--stand', 'with --now: the clock stops there')
    .option('--advance <time>', 'such as 90m or 2h')
    .action((options) => end(partners().then(({ setClock }) => setClock(io, options))));
}

function partnerFaultsCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('faults')
    .description('let faults befall the answers of a network; without --kinds they end')
    .argument('<network>')
    .option('--kinds <kinds...>', 'error, timeout, cut, html, empty, loop, shift, odd-ids')
    .option('--every <number>', 'every so many calls', '3')
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
    .option('--latency <ms>', 'the latency of its answers, in milliseconds', wholeNumber(0, 60_000))
    .action((network: string, options: { fill?: number; latency?: number }) =>
      end(partners().then(({ setMarket }) => setMarket(io, network, options))),
    );
}

function partnerDeviceCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('device')
    .description('register a test device: it gets test ads for every unit')
    .argument('<network>')
    .argument('<device>', 'what names the device')
    .action((network: string, device: string) =>
      end(partners().then(({ registerDevice }) => registerDevice(io, paint, network, device))),
    );
}

function partnerLiftCommand(partner: Command, { io, paint, end }: GroupContext): void {
  partner
    .command('lift')
    .description('lift the suspension of accounts that clicked their own ads')
    .argument('<network>')
    .action((network: string) =>
      end(partners().then(({ liftSuspension }) => liftSuspension(io, paint, network))),
    );
}

function partnerIncidentCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('incident')
    .description('let something befall the daily numbers of a unit, or of all units of an app')
    .argument('<network>')
    .addOption(
      new Option('--what <what>', 'no requests, no ads, hardly shown, fewer requests, a lower price')
        .choices(['silent', 'unfilled', 'unshown', 'fewer', 'cheaper'])
        .makeOptionMandatory(),
    )
    .option('--unit <id>', 'the unit')
    .option('--app <id>', 'all units of an app')
    .requiredOption('--from <day>', 'the first day, such as 2026-10-01')
    .option('--to <day>', 'the last day (else it stays so)')
    .option('--left <percent>', 'with fewer and cheaper: what is left, in percent', wholeNumber(0, 100))
    .action((network: string, options) =>
      end(partners().then(({ setIncident }) => setIncident(io, network, options))),
    );
}

function partnerReportCommand(partner: Command, { io, end }: GroupContext): void {
  partner
    .command('report')
    .description('print the daily numbers of a network as the table that a person would export')
    .argument('<network>')
    .option('--days <number>', 'the last days', wholeNumber(1, 400), 30)
    .action((network: string, options: { days: number }) =>
      end(partners().then(({ printReport }) => printReport(io, network, options))),
    );
}
