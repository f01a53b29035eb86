import type { Router } from 'express';
import { compareAppAds, mergeAppAds, neededRecords } from '../../core/roster/app-ads-needs.js';
import { readAppAds } from '../../core/standards/app-ads.js';
import { applyEdits } from '../../core/text/edit.js';
import { unifiedPatch } from '../../core/text/patch.js';
import type { ServiceContext } from '../context.js';
import { bind } from '../route.js';

/** app-ads.txt: what is needed, what a file has of it, and what would bring it in. */
export function appAdsRoutes(router: Router, context: ServiceContext): void {
  const { roster, profiles, steps } = context;
  const needed = () => neededRecords(roster.roster(), profiles.profiles());
  const merged = (text: string) => applyEdits(text, mergeAppAds(text, needed()));

  bind(router, 'appAdsNeeds', () => ({
    domain: roster.publisher()?.domain ?? null,
    needed: needed(),
    text: merged(''),
  }));
  bind(router, 'lintAppAds', ({ body }) => {
    const { lines, problems } = readAppAds(body.text);
    return {
      records: lines.flatMap((line) => (line.kind === 'record' ? [{ ...line.record, line: line.line }] : [])),
      problems,
    };
  });
  bind(router, 'compareAppAds', ({ body }) => {
    if (body.from !== undefined) steps.saveAppAds(body.from, body.text, context.now().toISOString());
    return { comparisons: compareAppAds(body.text, needed()) };
  });
  bind(router, 'mergeAppAds', ({ body }) => {
    const text = merged(body.text);
    return { text, patch: unifiedPatch([{ path: 'app-ads.txt', before: body.text, after: text }]) };
  });
}
