import { any, may, text, url, type Shapes } from './rule.js';

/** What several of the others hold. */
export const sharedShapes: Shapes = {
  TrackingEvents: { section: '3.14', children: { Tracking: any('Tracking') } },
  Tracking: {
    section: '3.14.1',
    content: 'url',
    attributes: { event: { is: 'text', required: true }, offset: { is: 'offset', since: '3.0' } },
  },
  StaticResource: { content: 'url', attributes: { creativeType: { is: 'text' } } },
  AdVerifications: { children: { Verification: any('Verification') } },
  Verification: {
    attributes: { vendor: { is: 'text' } },
    children: {
      JavaScriptResource: any('JavaScriptResource'),
      ExecutableResource: any('ExecutableResource', '4.1'),
      FlashResource: any('Free'),
      TrackingEvents: may('TrackingEvents', '4.1'),
      VerificationParameters: may('Text', '4.1'),
      ViewableImpression: may('ViewableImpression'),
    },
  },
  JavaScriptResource: {
    content: 'url',
    attributes: { apiFramework: { is: 'text' }, browserOptional: { is: 'boolean' } },
  },
  ExecutableResource: {
    content: 'url',
    attributes: { apiFramework: { is: 'text' }, type: { is: 'text' } },
  },
  Url: url(),
  Text: text(),
  Html: { content: 'text', attributes: { xmlEncoded: { is: 'boolean' } } },
  Free: { content: 'any' },
};
