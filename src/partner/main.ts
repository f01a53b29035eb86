import { parseArgs } from 'node:util';
import { profilesIn, shippedProfiles } from '../api/shipped-profiles.js';
import { startPartner } from './boot.js';

// The partner as a process of its own: tells its address and its token as one line of JSON, runs until it is
// told to stop, or until whoever started it is gone.

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: '0' },
    folder: { type: 'string' },
    seed: { type: 'string', default: '1' },
    profiles: { type: 'string' },
    rate: { type: 'string', default: '400/1' },
  },
});

async function main(): Promise<void> {
  const [limit = 400, seconds = 1] = values.rate.split('/').map(Number);
  const own = values.profiles === undefined ? [] : profilesIn(values.profiles, () => undefined);
  const partner = await startPartner({
    port: Number(values.port),
    folder: values.folder ?? null,
    seed: Number(values.seed),
    rate: { limit, seconds },
    profiles: [...shippedProfiles(), ...own].map(({ profile }) => profile),
    ...(process.env.SYNDEXA_PARTNER_TOKEN ? { token: process.env.SYNDEXA_PARTNER_TOKEN } : {}),
  });
  process.stdout.write(`${JSON.stringify({ url: partner.url, token: partner.token })}\n`);
  const stop = () => void partner.close().then(() => process.exit(0));
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, stop);
  if (process.send) process.once('disconnect', stop);
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  process.exitCode = 3;
});
