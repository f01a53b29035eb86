import {
  askPartnerAt,
  controlPartnerAt,
  partnerCardIn,
  PartnerProcessError,
  startPartnerProcess as startProcess,
  type PartnerCard,
  type PartnerProcess,
} from '../disk/partner/partner-process.js';
import { CommandError, exit } from './io.js';

export type { PartnerCard, PartnerProcess } from '../disk/partner/partner-process.js';

/** Starts the partner beside this process; its books and its card are kept in the data folder. */
export function startPartnerProcess(options: {
  home: string;
  port: number;
  seed?: number;
  fresh?: boolean;
}): Promise<PartnerProcess> {
  return asCommand(startProcess({ ...options, books: 'kept' }));
}

/** The partner that runs with a data folder, or with the demo below it; an error that says how to start one when there is none. */
export function partnerCard(home: string): PartnerCard {
  const card = partnerCardIn(home);
  if (card) return card;
  throw new CommandError(
    'No simulated partner is running.',
    exit.unreachable,
    'Start it: syndexa partner start.',
  );
}

/** One control call of the partner. */
export function controlPartner(card: PartnerCard, path: string, body: unknown): Promise<unknown> {
  return asCommand(controlPartnerAt(card, path, body));
}

/** A call of a page of the partner that needs no token. */
export function askPartner(card: PartnerCard, path: string): Promise<Response> {
  return asCommand(askPartnerAt(card, path, { method: 'POST' }));
}

const endings: Record<PartnerProcessError['kind'], { code: number; fix?: string }> = {
  'not-built': { code: exit.wrongUse, fix: 'Run npm run build.' },
  'port-taken': { code: exit.unreachable, fix: 'Choose another: --port 4881.' },
  'not-started': { code: exit.unreachable },
  unreachable: { code: exit.unreachable, fix: 'Start it: syndexa partner start.' },
  refused: { code: exit.refused },
};

async function asCommand<Result>(work: Promise<Result>): Promise<Result> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof PartnerProcessError)) throw error;
    const { code, fix } = endings[error.kind];
    throw new CommandError(error.message, code, fix);
  }
}
