import { useState, type KeyboardEvent } from 'react';
import { lanes, traceEvents, type TraceEvent } from '../../../core/facts/trace.js';
import { eventText } from '../../../core/rehearsal/words.js';

interface TimelineProps {
  events: readonly TraceEvent[];
  time: number;
  end: number;
  go: (time: number) => void;
}

const width = 900;
const left = 62;
const laneHeight = 46;
const height = lanes.length * laneHeight + 26;
/** A letter of a label is about so wide. */
const letter = 5.4;
const bad = new Set<TraceEvent['what']>([
  'refused',
  'failed',
  'timed-out',
  'no-fill',
  'stuck',
  'kept',
  'listener-kept',
  'show-failed',
  'stopped',
  'start-failed',
  'suspended',
  'row-reused',
]);

/** Virtual time as `1:02.5`. */
export function clockText(ms: number): string {
  const minutes = Math.floor(ms / 60_000);
  return `${minutes}:${((ms % 60_000) / 1_000).toFixed(1).padStart(4, '0')}`;
}

/** A lane each for the user, the app, the SDKs and the networks; events as marks with labels where there is room. */
export function Timeline({ events, time, end, go }: TimelineProps) {
  const [zoom, setZoom] = useState(1);
  const span = Math.max(end, 1_000) / zoom;
  const from = Math.min(Math.max(time - span / 2, 0), Math.max(end - span, 0));
  const x = (at: number) => left + ((at - from) / span) * (width - left - 12);
  const inView = events.filter(({ at }) => at >= from && at <= from + span);
  const change = (factor: number) => setZoom((known) => Math.min(Math.max(known * factor, 1), 512));
  const onKey = (event: KeyboardEvent) => {
    const step = steps(events, time, event.key, end);
    if (step !== undefined) go(step);
    else if (event.key === '+' || event.key === '=') change(2);
    else if (event.key === '-') change(0.5);
    else return;
    event.preventDefault();
  };
  return (
    <div className="timeline">
      <ZoomButtons change={change} />
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="application"
        aria-label="Timeline"
        tabIndex={0}
        onKeyDown={onKey}
        onClick={(event) => {
          const box = event.currentTarget.getBoundingClientRect();
          const at =
            from + (((event.clientX - box.left) / box.width) * width - left) * (span / (width - left - 12));
          go(Math.min(Math.max(at, 0), end));
        }}
      >
        {lanes.map((lane, index) => (
          <Lane
            key={lane}
            name={lane}
            top={index * laneHeight}
            events={inView.filter(({ what }) => traceEvents[what] === lane)}
            x={x}
            time={time}
          />
        ))}
        <Ticks from={from} span={span} x={x} />
        <line className="now" x1={x(time)} x2={x(time)} y1={0} y2={height - 22} />
      </svg>
    </div>
  );
}

function ZoomButtons({ change }: { change: (factor: number) => void }) {
  return (
    <div className="timeline-tools">
      {(
        [
          ['Zoom out', '−', 0.5],
          ['Zoom in', '+', 2],
        ] as const
      ).map(([label, sign, factor]) => (
        <button
          key={label}
          type="button"
          className="btn btn-sm btn-outline-secondary"
          aria-label={label}
          onClick={() => change(factor)}
        >
          {sign}
        </button>
      ))}
      <span className="soft">arrow keys move between events, + and − zoom</span>
    </div>
  );
}

/** Where a key goes to from a time: the next event, the one before, the first or the last. */
function steps(events: readonly TraceEvent[], time: number, key: string, end: number): number | undefined {
  if (key === 'ArrowRight') return events.find(({ at }) => at > time)?.at ?? end;
  if (key === 'ArrowLeft') return events.findLast(({ at }) => at < time)?.at ?? 0;
  if (key === 'Home') return 0;
  return key === 'End' ? end : undefined;
}

interface LaneProps {
  name: string;
  top: number;
  events: readonly TraceEvent[];
  x: (at: number) => number;
  time: number;
}

function Lane({ name, top, events, x, time }: LaneProps) {
  const middle = top + 14;
  const marks = placed(events, x);
  return (
    <g>
      <text className="lane-name" x={4} y={middle + 4}>
        {name === 'sdk' ? 'SDK' : name}
      </text>
      <line className="lane" x1={left} x2={width - 12} y1={middle} y2={middle} />
      {marks.map(({ event, at, label, row }, index) => (
        <g
          key={index}
          className={bad.has(event.what) ? 'mark bad' : event.at <= time ? 'mark' : 'mark ahead'}
        >
          <title>{`${clockText(event.at)} ${eventText(event)}`}</title>
          <circle cx={at} cy={middle} r={4} />
          {label !== null && (
            <text x={Math.min(at, width - 14 - label.length * letter)} y={middle + 14 + row * 10}>
              {label}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}

interface Mark {
  event: TraceEvent;
  at: number;
  label: string | null;
  row: number;
}

/** Marks with their labels in two rows, where there is room for them; one mark for each point of the drawing. */
function placed(events: readonly TraceEvent[], x: (at: number) => number): Mark[] {
  const free = [left, left];
  let last = -10;
  return events.flatMap((event): Mark[] => {
    const at = x(event.at);
    if (at - last < 1 && !bad.has(event.what)) return [];
    last = at;
    const label = event.what.replaceAll('-', ' ');
    const row = free.findIndex((end) => end <= at);
    if (row < 0) return [{ event, at, label: null, row: 0 }];
    free[row] = at + (label.length + 2) * letter;
    return [{ event, at, label, row }];
  });
}

function Ticks({ from, span, x }: { from: number; span: number; x: (at: number) => number }) {
  const step =
    [100, 500, 1_000, 5_000, 15_000, 60_000, 300_000, 900_000, 3_600_000].find((one) => span / one <= 10) ??
    3_600_000;
  const first = Math.ceil(from / step) * step;
  const all = Array.from(
    { length: Math.floor((from + span - first) / step) + 1 },
    (_, at) => first + at * step,
  );
  return (
    <g className="ticks">
      {all.map((at) => (
        <text key={at} x={x(at)} y={height - 6}>
          {clockText(at)}
        </text>
      ))}
    </g>
  );
}
