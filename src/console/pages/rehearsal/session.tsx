import { useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import { counted } from '../../../core/text/counted.js';
import type { TraceEvent } from '../../../core/facts/trace.js';
import { pictureAt } from '../../../core/rehearsal/picture.js';
import type { RehearsalRun } from '../../../core/rehearsal/report.js';
import { eventText } from '../../../core/rehearsal/words.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { useClock, speeds, type SessionClock } from './clock.js';
import { Exchanges } from './exchanges.js';
import { Phone } from './phone.js';
import { clockText, Timeline } from './timeline.js';

interface SessionProps {
  run: RehearsalRun;
  device: { width: number; height: number };
  placement: string | null;
}

/** The session of one variant: its timeline, what the user sees, and what was said to the networks. */
export function SessionView({ run, device, placement }: SessionProps) {
  const { trace = [], exchanges = [], placements } = run;
  const [onlyMine, setOnlyMine] = useState(true);
  const end = trace.at(-1)?.at ?? 0;
  const clock = useClock(end);
  const shown = useMemo(
    () =>
      trace.filter(
        (event) =>
          !onlyMine || event.placement === undefined || placement === null || event.placement === placement,
      ),
    [trace, onlyMine, placement],
  );
  const picture = pictureAt(trace, placements, clock.time);
  const current = shown.findLast(({ at }) => at <= clock.time);
  const mine = exchanges.filter((one) => !onlyMine || placement === null || one.placement === placement);
  return (
    <section className="session" aria-label="Session">
      <h2>
        {platformLabels[run.platform]} {run.variant}
        {placement !== null && <>: {placement}</>}
      </h2>
      <div className="session-body">
        <Phone picture={picture} device={device} />
        <div className="session-line">
          <Transport clock={clock} end={end} />
          <Form.Check
            type="switch"
            id="only-mine"
            label="only this placement"
            checked={onlyMine}
            onChange={(event) => setOnlyMine(event.target.checked)}
          />
          <Timeline events={shown} time={clock.time} end={end} go={clock.setTime} />
          <p className="event-now" aria-live="polite">
            {current ? <Event event={current} /> : 'Nothing has happened yet.'}
          </p>
          <EventTable events={shown} />
          <Exchanges exchanges={mine} />
          {run.cut !== undefined && <p className="soft">{run.cut} more are not listed.</p>}
        </div>
      </div>
    </section>
  );
}

function Transport({ clock, end }: { clock: SessionClock; end: number }) {
  return (
    <div className="transport">
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={clock.toggle}>
        {clock.isRunning ? '❚❚ pause' : '▶ play'}
      </button>
      <Form.Select
        size="sm"
        aria-label="Speed"
        value={clock.speed}
        onChange={(event) => clock.setSpeed(Number(event.target.value))}
      >
        {speeds.map((speed) => (
          <option key={speed} value={speed}>
            {speed}×
          </option>
        ))}
      </Form.Select>
      <Form.Range
        aria-label="Time in the session"
        aria-valuetext={clockText(clock.time)}
        min={0}
        max={end}
        step={100}
        value={clock.time}
        onChange={(event) => clock.setTime(Number(event.target.value))}
      />
      <span className="time">{clockText(clock.time)}</span>
    </div>
  );
}

function Event({ event }: { event: TraceEvent }) {
  const { at, placement, network, assumed } = event;
  return (
    <>
      <span className="time">{clockText(at)}</span> <strong>{eventText(event)}</strong>{' '}
      <span className="soft">{[placement, network].filter(Boolean).join(' · ')}</span>
      {assumed !== undefined && <span className="assumed"> assumed: {assumed}</span>}
    </>
  );
}

/** More rows than this are not drawn. */
const maxRows = 500;

function EventTable({ events }: { events: readonly TraceEvent[] }) {
  return (
    <details>
      <summary>{counted(events.length, 'event')} as a list</summary>
      <ol className="event-list">
        {events.slice(0, maxRows).map((event, index) => (
          <li key={index}>
            <Event event={event} />
          </li>
        ))}
      </ol>
      {events.length > maxRows && (
        <p className="soft">{events.length - maxRows} more: syndexa rehearse --trace prints them all.</p>
      )}
    </details>
  );
}
