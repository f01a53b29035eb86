import { randomInt } from 'node:crypto';
import type { TagPlayed, TagQuestion, TagReport } from '../../api/tags.js';
import type { PlayerName } from '../../core/rehearsal/tags/choose.js';
import type { Action } from '../../core/rehearsal/tags/playback.js';
import type { Client } from '../client.js';
import { decodeXml } from '../../core/formats/xml/decode.js';
import { homeFolder, withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { partnerCardIn } from '../../disk/partner/partner-process.js';
import { partnerCard } from '../partner-process.js';
import { startProgress } from '../progress.js';
import { bytesOf } from '../read-file.js';
import { playText, tagLintText, tagText } from '../render/tag.js';
import { followTag, inTurns, viaPartner } from '../../api/follow-tag.js';
import { callTracker, mayBeCalled, namedHosts } from '../../api/tag-net.js';

export interface TagOptions {
  device: PlayerName;
  bitrate?: number;
  wrappers: number;
  /** Whether to check that media files are available. */
  media: boolean;
  allow: readonly string[];
  /** Whether made-up hosts are asked at the simulated partner. */
  partner?: boolean;
  json?: boolean;
}

/** `syndexa tag show ADDRESS`: what a tag shows, and what is wrong with it. */
export function showTag(io: Io, paint: Paint, address: string, options: TagOptions): Promise<number> {
  return withService(io, async (client) => {
    const { report } = await read(io, client, address, options);
    if (options.json) printJson(io, report);
    else io.out(tagText(report, paint, io.width));
    return isSound(report) ? exit.clean : exit.findings;
  });
}

/** `syndexa tag play ADDRESS`: what is called when, with what the user does on the way. */
export function playTag(
  io: Io,
  paint: Paint,
  address: string,
  { actions, fire, ...options }: TagOptions & { actions: Action[]; fire?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const { question } = await read(io, client, address, options);
    const played = await client.call('playTag', { body: { ...question, actions } });
    const fired = fire ? await callAll(io, played, options.allow) : [];
    if (options.json) printJson(io, { ...played, fired });
    else io.out(playText(played, fired, paint));
    const isShown = played.lines.some(({ name }) => name === 'start');
    const isStuck = played.lines.some(({ what }) => what === 'stuck');
    return isShown && !isStuck ? exit.clean : exit.findings;
  });
}

/** `syndexa tag lint`: the tags on record, and what is wrong with their addresses. */
export function lintTags(
  io: Io,
  paint: Paint,
  { title, json }: { title?: string; json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const tags = await client.call('lintTags', { query: title === undefined ? {} : { title } });
    if (json) printJson(io, tags);
    else io.out(tagLintText(tags, paint));
    const isFaulty = tags.some(({ problems }) => problems.some(({ severity }) => severity === 'error'));
    return isFaulty ? exit.findings : exit.clean;
  });
}

/** Whether an ad is shown, and no document breaks the standard. */
function isSound({ ads, documents, deadEnds }: TagReport): boolean {
  return (
    ads.some(({ choice }) => choice.file !== null) &&
    deadEnds.length === 0 &&
    documents.every(({ problems }) => problems.every(({ severity }) => severity === 'warning'))
  );
}

/** Asks for the documents of a tag. */
async function read(
  io: Io,
  client: Client,
  address: string,
  { device, bitrate, wrappers, media, allow, partner }: TagOptions,
): Promise<{ question: TagQuestion; report: TagReport }> {
  const card = partner ? partnerCard(homeFolder(io.env)) : undefined;
  const first = await documentIn(io, address);
  const progress = startProgress(io, 'asking for the tag');
  try {
    return await followTag(
      {
        start: address,
        wrappers,
        device,
        ...(bitrate === undefined ? {} : { bitrate }),
        at: new Date().toISOString(),
        seed: randomInt(100_000_000),
      },
      {
        named: [...namedHosts(address, allow), ...namedHosts(card?.url ?? '', [])],
        via: viaPartner(card?.url),
        first,
        media,
        show: (question) => client.call('showTag', { body: question }),
      },
    );
  } finally {
    progress.end();
  }
}

/** The document in a file; undefined where an address is named. */
async function documentIn(io: Io, address: string): Promise<{ url: string; text: string } | undefined> {
  if (/^https?:\/\//i.test(address)) return undefined;
  if (/^[a-z][a-z0-9+.-]+:\/\//i.test(address))
    throw new CommandError(
      `${address} is not an address that a player can fetch.`,
      exit.wrongUse,
      'Use one that begins with https://, or the name of a file.',
    );
  const text = decodeXml(await bytesOf(io, address));
  if (text === undefined)
    throw new CommandError(
      `${address} has an encoding that cannot be read.`,
      exit.wrongUse,
      'Save it as UTF-8, or name its encoding in its first line: <?xml version="1.0" encoding="…"?>.',
    );
  if (text.length > 2_000_000)
    throw new CommandError(
      `${address} is larger than 2 MB.`,
      exit.wrongUse,
      'No player reads a document of this size.',
    );
  return { url: address, text };
}

/** Calls the trackers of a break on allowed hosts; the others are reported as skipped. */
async function callAll(io: Io, { lines }: TagPlayed, allow: readonly string[]) {
  const card = partnerCardIn(homeFolder(io.env));
  const named = namedHosts(card?.url ?? '', allow);
  const urls = lines.flatMap(({ calls }) => calls);
  return inTurns(urls, async (url) => ({
    url,
    outcome: mayBeCalled(url, named)
      ? await callTracker(url, named)
      : 'skipped: the host is not given with --allow',
  }));
}
