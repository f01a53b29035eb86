import { any, may, text, url, type Shapes } from './rule.js';

/** What several of the others hold. */
export const sharedShapes: Shapes = {
  TrackingEvents: { section: '3.14', children: { Tracking: any('Tracking') } },
  Tracking: {
    section: '3.14.1',
    content: 'url',
    attributes: { event: { is: 'text', required: true }, offset: { is: 'offset', since: '3.0' } },
  },
  StaticResource: { section: '3.15', content: 'url', attributes: { creativeType: { is: 'text' } } },
  AdVerifications: { section: '3.16', children: { Verification: any('Verification') } },
  Verification: {
    section: '3.17',
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
    section: '3.17.1',
    content: 'url',
    attributes: { apiFramework: { is: 'text' }, browserOptional: { is: 'boolean' } },
  },
  ExecutableResource: {
    section: '3.17.2',
    content: 'url',
    attributes: { apiFramework: { is: 'text' }, type: { is: 'text' } },
  },
  Url: url('3'),
  Text: text('3'),
  Html: { section: '3.15', content: 'text', attributes: { xmlEncoded: { is: 'boolean' } } },
  Free: { section: '3.18', content: 'any' },
};
