import type { StepDefinition } from '../model.js';

/** The network’s records on the developer site. */
export const appAds: StepDefinition = {
  id: 'app-ads',
  name: 'Name the network in app-ads.txt',
  requires: ['register'],
  per: 'network',
  applies: ({ profile }) => profile['app-ads'].length > 0,
  look(context) {
    const { appAds, profile } = context;
    const mine = appAds?.comparisons.filter(({ network }) => network === profile.id) ?? [];
    if (!appAds)
      return {
        state: 'cannot-tell',
        why: 'The developer site was not looked at yet.',
        command: 'syndexa appads verify',
      };
    const evidence = mine.map(({ state, record, line }) => ({
      what: `${state}: ${record ? `${record.domain}, ${record.account}` : 'no record can be written'}`,
      place: line === undefined ? null : { path: appAds.url, line, column: 1 },
    }));
    if (mine.every(({ state }) => state === 'there'))
      return { state: 'done', why: `${appAds.url} has its records.`, evidence };
    return {
      state: 'to-do',
      why: mine.find(({ state }) => state !== 'there')?.why ?? '',
      evidence,
      command: 'syndexa appads merge app-ads.txt --write',
    };
  },
};
