import type { Router } from 'express';
import * as z from 'zod';
import { Platform } from '../../core/words/words.js';
import { networkOf, type PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import { hashOf } from '../store/rows.js';
import { decide } from './decide.js';

/** What a delivery of a notification asks for. */
export const DeliveryRequest = z.strictObject({
  unit: z.string().min(1).max(2_000),
  identifier: z.string().max(200).optional(),
  platform: Platform.optional(),
  device: z.string().max(200).optional(),
  development: z.boolean().default(false),
  child: z.boolean().default(false),
});

/**
 * Delivery of a notification to one device. The network sends it in the name of the application, so it needs the push
 * credential that the publisher has deposited; whoever asks must have it, too.
 */
export function deliveryRoute(router: Router, context: PartnerContext): void {
  router.post('/:network/serve/notification', (request, response) => {
    const profile = networkOf(context, request.params.network);
    const parsed = DeliveryRequest.safeParse(request.body);
    if (!parsed.success) {
      const [issue] = parsed.error.issues;
      throw new Refusal('unreadable', issue?.message ?? 'It cannot be read.', {
        field: issue?.path.map(String).join('.'),
      });
    }
    const { development: isDevelopment, child: isChild, ...ask } = parsed.data;
    const ad = decide(context, profile, { ...ask, isDevelopment, isChild, formats: ['notification'] });
    if (!ad) return void response.status(204).end();
    const account = ad.account === null ? undefined : context.books.accountById(ad.account);
    const credential = request.headers['push-credential'];
    const isRight = typeof credential === 'string' && hashOf(credential) === account?.pushHash;
    // A sample is sent in the network's own name.
    if (account && !isRight)
      throw new Refusal(
        'credential-missing',
        account.pushHash === null
          ? `No push credential was deposited at ${profile.name}, so it can send nothing.`
          : `The push credential is not the one that was deposited at ${profile.name}.`,
      );
    const id = context.ledger.give(profile.id, ad);
    response.json({ id, test: ad.isTest });
  });
}
