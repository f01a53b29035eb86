import { counted } from '../../core/text/counted.js';
import type { PlayLine, TagLint, TagPlayed, TagReport } from '../../api/tags.js';
import { errorCodes, type ErrorCode } from '../../core/formats/vast/error-codes.js';
import type { Paint } from '../io.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { wrap } from './places.js';

/** What a tag shows, for a person. */
export function tagText(report: TagReport, paint: Paint, width: number): string {
  const { documents, ads, deadEnds, insecure, macros } = report;
  const lines = documents.map((document) => documentLine(document, paint));
  for (const [index, { url, problems }] of documents.entries())
    for (const { severity, line, column, message, fix, section } of problems) {
      const mark = severity === 'error' ? paint.red('■ error') : paint.yellow('▲ warning');
      const place =
        documents.length > 1
          ? `document ${index + 1}:${line}:${column}`
          : `${shortened(url)}:${line}:${column}`;
      const source = section === undefined ? '' : paint.dim(` (VAST 4.2, section ${section})`);
      lines.push(`${place}  ${mark}  ${message} ${fix}${source}`);
    }
  for (const [index, ad] of ads.entries()) lines.push('', ...adLines(ad, index, ads.length, paint));
  for (const end of deadEnds) {
    const place = end.place ? `:${end.place.line}:${end.place.column}` : '';
    lines.push(
      '',
      `${paint.red('■ no ad')}  document ${end.step + 1}${place}  ${end.why}`,
      wrap(end.fix, width, '    '),
      `    ${paint.dim(`error ${end.code}: ${errorCodes[end.code as ErrorCode]}`)}`,
    );
  }
  if (ads.length === 0 && deadEnds.length === 0) lines.push('', `${paint.red('■ no ad')}`);
  if (insecure.length > 0) {
    const kinds = [...new Set(insecure.map(({ what }) => what))].join(', ');
    lines.push(
      '',
      `${paint.yellow('▲ not secure')}  ${counted(insecure.length, 'address', 'addresses')} without https: ${kinds}`,
      wrap(
        'Platforms block these unless the app allows them: ask the network for https URLs.',
        width,
        '    ',
      ),
      ...insecure.slice(0, 5).map(({ url }) => `    ${url}`),
    );
  }
  if (macros.unfilled.length > 0)
    lines.push(
      '',
      `${paint.yellow('▲ unknown macros')}  ${[...new Set(macros.unfilled.map(({ macro, what }) => `${macro} (${what})`))].join(', ')}`,
      wrap('These are not VAST macros, so players send them unchanged.', width, '    '),
    );
  if (macros.withoutValue.length > 0)
    lines.push(
      '',
      paint.dim(
        `Sent as -1, because a player in an app has no value for them: ${macros.withoutValue.join(', ')}`,
      ),
    );
  return `${lines.join('\n')}\n`;
}

function documentLine(
  { url, depth, version, redirects, ms, failed, ads }: TagReport['documents'][number],
  paint: Paint,
): string {
  const said = [
    failed === null
      ? version === null
        ? 'no VAST'
        : `VAST ${version}, ${counted(ads, 'ad')}`
      : failed.replace('-', ' '),
    ...(redirects > 0 ? [counted(redirects, 'redirect')] : []),
    ...(ms === null ? [] : [`${ms} ms`]),
  ];
  const lead = depth === 0 ? '' : `${'  '.repeat(depth - 1)}${paint.dim('└')} `;
  return `${lead}${url}  ${paint.dim(said.join(', '))}`;
}

function adLines(ad: TagReport['ads'][number], index: number, count: number, paint: Paint): string[] {
  const { choice, duration, skip, quartiles } = ad;
  const { file } = choice;
  const name = ad.title === '' ? (ad.id ?? 'without a title') : ad.title;
  const row = (label: string, text: string) => `  ${paint.dim(label.padEnd(11))}${text}`;
  const calls = [
    counted(ad.impressions, 'impression'),
    ...Object.entries(quartiles).map(([event, number]) => `${event} ${number}`),
  ].join(', ');
  const skips = skip === null ? 'it cannot be skipped' : `it can be skipped after ${seconds(skip)}`;
  const missing = Object.entries(quartiles).filter(([, number]) => number === 0);
  return [
    `${paint.bold(count > 1 ? `Ad ${index + 1}  ${name}` : name)}  ${paint.dim(ad.systems.filter((one) => one !== '').join(' → '))}`,
    file ? row('plays', `${file.url}`) : row('plays', `${paint.red('nothing')}: ${choice.why}`),
    ...(file
      ? [
          row(
            '',
            paint.dim(
              [
                `${file.width}×${file.height}`,
                ...(file.bitrate ? [`${file.bitrate} kbit/s`] : []),
                `${file.type}: ${choice.why}`,
              ].join(', '),
            ),
          ),
        ]
      : []),
    ...choice.passed.map(({ url, why }) => row('not', `${url}  ${paint.dim(why)}`)),
    row('length', duration === null ? paint.red('cannot be read') : `${seconds(duration)}; ${skips}`),
    row('calls', calls),
    ...(missing.length > 0 && missing.length < 5
      ? [row('', paint.yellow(`▲ nothing is called at ${missing.map(([event]) => event).join(', ')}`))]
      : []),
    row(
      'click',
      ad.clickThrough === null
        ? 'no ClickThrough'
        : `${ad.clickThrough}  ${paint.dim(counted(ad.clickTracking, 'call'))}`,
    ),
    ...ad.companions.map(({ width, height, resource }) =>
      row(
        'beside it',
        `${width}×${height}  ${resource === null ? paint.yellow('▲ empty') : resource.kind === 'html' ? 'HTML' : resource.value}`,
      ),
    ),
    ...ad.verifications.map(({ vendor, scripts }) =>
      row('measured by', `${vendor || 'nobody named'}  ${paint.dim(scripts.join(' '))}`),
    ),
    ...(ad.interactive > 0
      ? [row('also', `${counted(ad.interactive, 'file')} for more than a video player`)]
      : []),
  ];
}

/** What happens in a break, for a person. */
export function playText(
  { lines, report }: TagPlayed,
  fired: readonly { url: string; outcome: string }[],
  paint: Paint,
): string {
  const many = report.ads.length > 1;
  const shown = lines.flatMap((line) => playLines(line, many, paint));
  const calls = lines.reduce((sum, line) => sum + line.calls.length, 0);
  const said =
    fired.length === 0
      ? `${counted(calls, 'call')} in total; none was made.`
      : `${counted(fired.filter(({ outcome }) => /^\d+$/.test(outcome)).length, 'call')} of ${calls} made.`;
  const outcomes = fired.map(
    ({ url, outcome }) =>
      `  ${/^2\d\d$/.test(outcome) ? paint.green(outcome) : paint.yellow(outcome)}  ${url}`,
  );
  return `${[...shown, '', said, ...outcomes].join('\n')}\n`;
}

function playLines(line: PlayLine, many: boolean, paint: Paint): string[] {
  const { at, ad, what, name, code, note, calls } = line;
  const marks: Record<PlayLine['what'], string> = {
    event: paint.cyan('●'),
    error: paint.red('■'),
    ignored: paint.dim('○'),
    stuck: paint.red('■'),
    content: paint.green('▶'),
  };
  const label = code === undefined ? name : `error ${code}`;
  const which = many && ad !== null ? paint.dim(` ad ${ad}`) : '';
  const why = note ?? (code === undefined ? '' : errorCodes[code as ErrorCode]);
  const head =
    `${seconds(at).padStart(9)}${which}  ${marks[what]} ${label.padEnd(14)} ${paint.dim(why)}`.trimEnd();
  return [head, ...calls.map((url) => `${' '.repeat(many ? 18 : 13)}${url}`)];
}

/** The tags on record, for a person: first what is wrong, then how many there are. */
export function tagLintText(tags: TagLint, paint: Paint): string {
  const lines = tags
    .filter(({ problems }) => problems.length > 0)
    .flatMap(({ title, placement, platform, stage, url, problems }) => [
      `${paint.bold(`${title} ${placement}`)}  ${paint.dim(`${platformLabels[platform]}, ${stage}`)}  ${url}`,
      ...problems.map(
        ({ severity, message, fix }) =>
          `  ${severity === 'error' ? paint.red('■ error') : paint.yellow('▲ warning')}  ${message} ${fix}`,
      ),
    ]);
  if (tags.length === 0) return 'No placement on record has a tag URL.\n';
  const faulty = tags.filter(({ problems }) => problems.length > 0).length;
  const end =
    faulty === 0
      ? `${paint.green('✔')} ${counted(tags.length, 'tag')} on record, nothing found.`
      : `${counted(tags.length, 'tag')} on record, ${faulty} with problems.`;
  return `${[...lines, end].join('\n')}\n`;
}

/** `15 s`, `2.5 s`. */
function seconds(ms: number): string {
  return `${Number((ms / 1000).toFixed(3))} s`;
}

function shortened(url: string): string {
  return url.length > 60 ? `…${url.slice(-58)}` : url;
}
