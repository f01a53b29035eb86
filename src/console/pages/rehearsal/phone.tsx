import type { Picture, SeenAd } from '../../../core/rehearsal/picture.js';

interface PhoneProps {
  picture: Picture;
  device: { width: number; height: number };
}

const bar = 28;

/** A drawn phone that shows what the user sees: the screen, where the banner is, the ad that covers it. */
export function Phone({ picture, device }: PhoneProps) {
  const { width, height } = picture.isTurned ? { width: device.height, height: device.width } : device;
  const says = sentence(picture);
  return (
    <figure className="phone">
      <svg viewBox={`-14 -14 ${width + 28} ${height + 28}`} role="img" aria-label={says}>
        <rect className="case" x={-12} y={-12} width={width + 24} height={height + 24} rx={26} />
        <rect className="glass" x={0} y={0} width={width} height={height} rx={14} />
        <text className="status" x={14} y={19}>
          {picture.isOnline ? 'online' : 'no connection'}
        </text>
        {picture.front === 'nothing' && (
          <Words x={width / 2} y={height / 2} lines={['The app does not run.']} />
        )}
        {picture.front === 'elsewhere' && (
          <Words x={width / 2} y={height / 2} lines={['Another app is in front.']} />
        )}
        {picture.front === 'app' && <AppScreen picture={picture} width={width} height={height} />}
        {picture.front === 'ad' && picture.covering && (
          <Covering ad={picture.covering} width={width} height={height} />
        )}
      </svg>
      <figcaption className="soft">{says}</figcaption>
    </figure>
  );
}

/** What is seen, in a sentence. */
function sentence({ front, screen, covering, inView, isStuck, asks }: Picture): string {
  if (front === 'nothing') return 'The app does not run.';
  if (front === 'elsewhere') return 'The user is in another app.';
  if (front === 'ad' && covering)
    return `${adName(covering)} of ${covering.placement} covers the screen, ${Math.round(covering.played * 100)} % played.`;
  if (isStuck) return 'The user is stuck.';
  if (asks) return 'The app asks for consent.';
  const ads = inView.map((ad) => `${adName(ad)} of ${ad.placement}`).join(', ');
  return screen === null ? 'The app is open.' : `${screen}${ads === '' ? ' without an ad' : ` with ${ads}`}.`;
}

const adName = ({ test }: SeenAd): string => (test ? 'a test ad' : 'an ad');

function AppScreen({ picture, width, height }: { picture: Picture; width: number; height: number }) {
  const rows = Math.floor((height - bar - 80) / 46);
  const native = picture.inView.filter(({ banner }) => banner === null);
  return (
    <g>
      <rect className="title-bar" x={0} y={bar} width={width} height={40} />
      <text className="title" x={16} y={bar + 26}>
        {picture.screen ?? 'the app'}
      </text>
      {Array.from({ length: rows }, (_, row) => (
        <rect
          key={row}
          className="row"
          x={16}
          y={bar + 56 + row * 46}
          width={width - 32}
          height={30}
          rx={4}
        />
      ))}
      {native.map((ad, index) => (
        <AdBox
          key={ad.placement}
          ad={ad}
          x={16}
          y={bar + 56 + (2 + index * 2) * 46}
          width={width - 32}
          height={76}
        />
      ))}
      {picture.inView.map((ad) =>
        ad.banner ? (
          <AdBox
            key={ad.placement}
            ad={ad}
            x={(width - Math.min(ad.banner.width, width)) / 2}
            y={topOf(ad.banner, height)}
            width={Math.min(ad.banner.width, width)}
            height={ad.banner.height}
          />
        ) : null,
      )}
      {picture.asks && (
        <Words x={width / 2} y={height / 2} lines={['May ads be shown', 'that fit you?']} isBoxed />
      )}
      {picture.isStuck && <Words x={width / 2} y={height / 2} lines={['Nothing goes on here.']} isBoxed />}
    </g>
  );
}

function topOf({ anchor, height: own }: NonNullable<SeenAd['banner']>, height: number): number {
  if (anchor === 'top') return bar + 40;
  return anchor === 'bottom' ? height - own - 8 : Math.round(height * 0.45);
}

interface BoxProps {
  ad: SeenAd;
  x: number;
  y: number;
  width: number;
  height: number;
}

function AdBox({ ad, x, y, width, height }: BoxProps) {
  return (
    <g className={ad.test ? 'ad-box test' : 'ad-box'}>
      <rect x={x} y={y} width={width} height={height} rx={4} />
      <text x={x + 10} y={y + height / 2 + 5}>
        {ad.test ? 'Test ad' : 'Ad'} · {ad.network}
      </text>
    </g>
  );
}

function Covering({
  ad,
  width,
  height,
}: {
  ad: NonNullable<Picture['covering']>;
  width: number;
  height: number;
}) {
  return (
    <g className={ad.test ? 'ad-box test' : 'ad-box'}>
      <rect x={0} y={bar} width={width} height={height - bar} rx={10} />
      <text className="big" x={width / 2} y={height / 2 - 10} textAnchor="middle">
        {ad.test ? 'Test ad' : 'Ad'}
      </text>
      <text x={width / 2} y={height / 2 + 18} textAnchor="middle">
        {ad.network}
      </text>
      <rect className="track" x={20} y={height - 40} width={width - 40} height={6} rx={3} />
      <rect className="played" x={20} y={height - 40} width={(width - 40) * ad.played} height={6} rx={3} />
    </g>
  );
}

function Words({
  x,
  y,
  lines,
  isBoxed = false,
}: {
  x: number;
  y: number;
  lines: readonly string[];
  isBoxed?: boolean;
}) {
  return (
    <g className="words">
      {isBoxed && <rect x={x - 120} y={y - 34} width={240} height={36 + lines.length * 20} rx={10} />}
      {lines.map((line, index) => (
        <text key={line} x={x} y={y + index * 20} textAnchor="middle">
          {line}
        </text>
      ))}
    </g>
  );
}
