import { any, may, must, some, text, url, type Shapes } from './rule.js';

/** What both kinds of ad hold. */
const adParts = {
  AdSystem: must('AdSystem'),
  Impression: some('Impression'),
  Error: any('Error'),
  Extensions: may('Free'),
  Pricing: may('Pricing', '3.0'),
  ViewableImpression: may('ViewableImpression', '4.0'),
  AdVerifications: may('AdVerifications', '4.0'),
} as const;

/** Ads of their own, and wrappers. */
export const adShapes: Shapes = {
  VAST: {
    section: '3.2',
    attributes: { version: { is: 'text', required: true } },
    children: { Ad: any('Ad'), Error: any('Error', '3.0') },
  },
  Ad: {
    section: '3.3',
    attributes: {
      id: { is: 'text' },
      sequence: { is: 'integer', since: '3.0' },
      conditionalAd: { is: 'boolean', since: '4.0' },
      adType: { is: ['video', 'audio', 'hybrid'], since: '4.1' },
    },
    children: { InLine: may('InLine'), Wrapper: may('Wrapper') },
    oneOf: ['InLine', 'Wrapper'],
  },
  InLine: {
    section: '3.4',
    children: {
      ...adParts,
      AdTitle: must('Text'),
      AdServingId: must('AdServingId', '4.1'),
      Category: any('Category', '4.0'),
      Description: may('Text'),
      Advertiser: may('Advertiser', '3.0'),
      Survey: any('Survey'),
      Expires: may('Expires', '4.1'),
      Creatives: must('Creatives'),
    },
  },
  Wrapper: {
    attributes: {
      followAdditionalWrappers: { is: 'boolean', since: '3.0' },
      allowMultipleAds: { is: 'boolean', since: '3.0' },
      fallbackOnNoAd: { is: 'boolean', since: '3.0' },
    },
    children: {
      ...adParts,
      VASTAdTagURI: must('Url'),
      BlockedAdCategories: any('BlockedAdCategories', '4.1'),
      Creatives: may('WrapperCreatives'),
    },
  },
  AdSystem: { section: '3.4.1', content: 'text', attributes: { version: { is: 'text' } } },
  AdServingId: text('3.4.3'),
  Impression: url('3.4.4'),
  Category: { section: '3.4.5', content: 'text', attributes: { authority: { is: 'url', required: true } } },
  BlockedAdCategories: { content: 'text', attributes: { authority: { is: 'url' } } },
  Advertiser: { section: '3.4.7', content: 'text', attributes: { id: { is: 'text' } } },
  Pricing: {
    section: '3.4.8',
    content: 'number',
    attributes: {
      model: { is: ['CPM', 'CPC', 'CPE', 'CPV'], required: true },
      currency: { is: 'currency', required: true },
    },
  },
  Survey: { section: '3.4.9', content: 'url', attributes: { type: { is: 'text' } } },
  Expires: { section: '3.4.10', content: 'integer' },
  Error: url('3.4.11'),
  ViewableImpression: {
    section: '3.5',
    attributes: { id: { is: 'text' } },
    children: { Viewable: any('Url'), NotViewable: any('Url'), ViewUndetermined: any('Url') },
  },
};
