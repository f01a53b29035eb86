import { any, may, some, type Shapes } from './rule.js';

const creativeAttributes = {
  id: { is: 'text' },
  sequence: { is: 'integer' },
  AdID: { is: 'text' },
  adId: { is: 'text', since: '3.0' },
  apiFramework: { is: 'text', since: '3.0' },
} as const;

/** Creatives of both kinds of ad. */
export const creativeShapes: Shapes = {
  Creatives: { section: '3.6', children: { Creative: some('Creative') } },
  WrapperCreatives: { section: '3.6', children: { Creative: any('WrapperCreative') } },
  Creative: {
    section: '3.7',
    attributes: creativeAttributes,
    children: {
      UniversalAdId: some('UniversalAdId', '4.0'),
      Linear: may('Linear'),
      NonLinearAds: may('NonLinearAds'),
      CompanionAds: may('CompanionAds'),
      CreativeExtensions: may('Free', '3.0'),
    },
    oneOf: ['Linear', 'NonLinearAds', 'CompanionAds'],
  },
  WrapperCreative: {
    section: '3.7',
    attributes: creativeAttributes,
    children: {
      UniversalAdId: any('UniversalAdId', '4.0'),
      Linear: may('WrapperLinear'),
      NonLinearAds: may('NonLinearAds'),
      CompanionAds: may('CompanionAds'),
      CreativeExtensions: may('Free', '3.0'),
    },
  },
  UniversalAdId: {
    section: '3.7.1',
    content: 'text',
    attributes: { idRegistry: { is: 'text', required: true }, idValue: { is: 'text' } },
  },
};
