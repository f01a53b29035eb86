import type { Profile } from '../../network/model.js';
import type { Platform, Stage } from '../../words/words.js';
import type { ByHand } from '../../edits/model.js';
import { platformLabels } from '../../words/platform-labels.js';

/** Rules whose findings are fixed by the right app ID in its place, on every stack. */
export const appIdRules = [
  'app-id/missing',
  'app-id/differs-from-roster',
  'app-id/malformed',
  'app-id/unit-id-in-place',
  'app-id/wrong-platform',
  'stage/test-id-in-production',
  'stage/production-id-in-test',
];

/** Rules whose findings a placebook fixes. */
export const placebookRules = [
  'unit-id/not-in-build',
  'platform/setting-differs',
  'app-id/missing',
  'app-id/differs-from-roster',
  'stage/test-id-in-production',
  'stage/production-id-in-test',
];

/** Variants without a stage prevent the wiring of an edition. */
export function stageStep(platform: Platform, variants: readonly string[]): ByHand {
  return {
    platform,
    network: null,
    rule: 'stage/variant-unmatched',
    what: `Say which stage ${variants.join(', ')} belongs to. Nothing is wired on ${platformLabels[platform]} until then.`,
    why: 'A variant without a stage would be built without any ID, or with the wrong one.',
    where: 'syndexa title set {title} --test NAME --production NAME',
  };
}

/** A hole in the roster keeps a network from being wired. */
export function holeStep(platform: Platform, profile: Profile, stage: Stage): ByHand {
  return {
    platform,
    network: profile.id,
    rule: 'app-id/not-in-roster',
    what: `Put the ${stage} ${profile.ids.app?.label ?? 'app ID'} of ${profile.name} for ${platformLabels[platform]} into the roster, then wire again.`,
    why: 'Nothing is wired for a network until the roster has its ID for both stages; half of it would break the other builds.',
    where: `syndexa id set {title} --network ${profile.id} --platform ${platform} --stage ${stage} ID`,
  };
}
