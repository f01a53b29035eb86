import type { anchorNames, sizeNames } from './names.js';

interface Size {
  width: number;
  height: number;
}

/** Sizes of banners in density-independent pixels, as IAB's guidelines for fixed sizes name them. */
const fixed: Record<'standard' | 'large' | 'medium-rectangle', Size> = {
  standard: { width: 320, height: 50 },
  large: { width: 320, height: 100 },
  'medium-rectangle': { width: 300, height: 250 },
};

/**
 * The size of a banner on a screen. An adaptive one is as wide as the screen and as high as its width allows: in the
 * proportion of the standard size, from 50 to 90, and no more than 15 percent of the screen's height.
 */
export function bannerSize(size: (typeof sizeNames)[number], screen: Size): Size {
  if (size !== 'adaptive') return fixed[size];
  const byWidth = Math.min(Math.max(Math.round((screen.width * 50) / 320), 50), 90);
  return { width: screen.width, height: Math.min(byWidth, Math.max(32, Math.round(screen.height * 0.15))) };
}

/** Where on the screen a banner is: as set, else as its layout holds it. */
export function bannerAnchor(
  set: (typeof anchorNames)[number] | undefined,
  heldAt: string | undefined,
): (typeof anchorNames)[number] {
  if (set !== undefined) return set;
  return heldAt === 'top-edge' ? 'top' : heldAt === 'bottom-edge' ? 'bottom' : 'inline';
}
