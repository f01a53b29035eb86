import { counted } from '../../../core/text/counted.js';
import type { Exchange } from '../../../core/rehearsal/report.js';
import { clockText } from './timeline.js';

/** More than this are not drawn. */
const maxShown = 200;

/** What was said to the networks, and what they answered. */
export function Exchanges({ exchanges }: { exchanges: readonly Exchange[] }) {
  return (
    <details>
      <summary>{counted(exchanges.length, 'exchange')} with the partner</summary>
      <ul className="exchanges">
        {exchanges.slice(0, maxShown).map((one, index) => (
          <li key={index}>
            <details>
              <summary>
                <span className="time">{clockText(one.at)}</span> {one.method}{' '}
                <code>{pathOf(one.address)}</code> <strong>{one.status ?? 'no answer'}</strong>{' '}
                <span className="soft">
                  {one.placement} · {one.network}
                </span>
              </summary>
              {one.request !== null && <Message label="Request" text={one.request} />}
              <Message label="Answer" text={one.response} />
            </details>
          </li>
        ))}
      </ul>
      {exchanges.length > maxShown && (
        <p className="soft">{exchanges.length - maxShown} more are not drawn.</p>
      )}
    </details>
  );
}

function Message({ label, text }: { label: string; text: string }) {
  return (
    <>
      <div className="soft">{label}</div>
      <pre className="message" tabIndex={0}>
        {text === '' ? '(empty)' : pretty(text)}
      </pre>
    </>
  );
}

/** JSON and XML in lines that can be read; other text as it is. */
function pretty(text: string): string {
  try {
    return JSON.stringify(JSON.parse(text), null, 2);
  } catch {
    return text.trimStart().startsWith('<') ? indented(text) : text;
  }
}

function indented(xml: string): string {
  let depth = 0;
  return xml
    .replace(/>\s*</g, '>\n<')
    .split('\n')
    .map((line) => {
      const closes = /^<\//.test(line);
      if (closes) depth = Math.max(depth - 1, 0);
      const shown = `${'  '.repeat(depth)}${line.trim()}`;
      const opens = /^<[^/?!]/.test(line) && !/\/>$/.test(line) && !/<\/[^>]+>$/.test(line);
      if (opens) depth++;
      return shown;
    })
    .join('\n');
}

function pathOf(address: string): string {
  return URL.canParse(address) ? new URL(address).pathname : address;
}
