import { counted } from '../../text/counted.js';
import { asEvidence, unread, type StepDefinition } from '../model.js';

/** Nothing that stops a release was found. */
export const releaseCheck: StepDefinition = {
  id: 'release-check',
  name: 'Check the release',
  requires: ['production-ids', 'dependency', 'start-up', 'test-run', 'app-ads', 'store-listing'],
  per: 'edition',
  gate: true,
  look(context) {
    const { reading, titleId } = context;
    if (!reading) return unread(context);
    const blockers = reading.findings.filter(({ severity }) => severity === 'blocker');
    const command = `syndexa check DIR --title ${titleId}`;
    if (blockers.length > 0)
      return {
        state: 'to-do',
        why: `${counted(blockers.length, 'blocker is', 'blockers are')} open.`,
        evidence: asEvidence(blockers),
        command,
      };
    return {
      state: 'done',
      why: 'The last check found no blocker.',
      evidence: [{ what: `${reading.tree}, read ${reading.readAt}`, place: reading.edition.home }],
    };
  },
};
