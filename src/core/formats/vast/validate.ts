import type { XmlElement } from '../xml/model.js';
import { elements, textOf } from '../xml/query.js';
import { trackingEvents } from './events.js';
import type { VastProblem } from './model.js';
import { elementRules } from './shapes/index.js';
import type { AttributeRule, ChildRule, ElementRule } from './shapes/rule.js';
import { complaintOf } from './values.js';
import { isAtLeast, type VastVersion } from './versions.js';

/** Problems of one document beyond this number are counted, and not listed. */
const maxProblems = 200;

type Report = (problem: Omit<VastProblem, 'line' | 'column'>, at: number) => void;

/** Checks the elements of a document by the rules of its version. */
export function validate(
  root: XmlElement,
  version: VastVersion,
  placeOf: (offset: number) => { line: number; column: number },
): VastProblem[] {
  const problems: VastProblem[] = [];
  let more = 0;
  const report: Report = (problem, at) => {
    if (problems.length < maxProblems) problems.push({ ...problem, ...placeOf(at) });
    else more += 1;
  };
  const waiting: { element: XmlElement; shape: string }[] = [{ element: root, shape: 'VAST' }];
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const rule = elementRules.get(next.shape);
    if (!rule) continue;
    checkAttributes(next.element, rule, version, report);
    checkContent(next.element, rule, report);
    if (next.shape === 'Tracking') checkEvent(next.element, version, report);
    waiting.push(...checkChildren(next.element, rule, version, report).reverse());
  }
  if (more > 0)
    problems.push({
      severity: 'warning',
      message: `There are ${more} more problems, which are not listed.`,
      fix: 'Fix the ones above, and check again.',
      ...placeOf(root.start),
    });
  return problems;
}

function checkAttributes(
  element: XmlElement,
  { attributes = {}, section }: ElementRule,
  version: VastVersion,
  report: Report,
): void {
  const rules = new Map<string, AttributeRule>(Object.entries(attributes));
  for (const [name, rule] of rules) {
    const found = element.attributes.find((one) => one.name === name);
    if (found || !rule.required || !isAtLeast(version, rule.since ?? '2.0')) continue;
    report(
      {
        severity: 'error',
        section,
        message: `<${element.name}> has no ${name}.`,
        fix: `Add ${name}="…" to it.`,
      },
      element.start,
    );
  }
  for (const { name, value, valueSpan, start } of element.attributes) {
    if (name.includes(':') || name === 'xmlns') continue;
    const rule = rules.get(name);
    if (!rule || !isAtLeast(version, rule.since ?? '2.0')) {
      const since = rule?.since ? ` It was introduced in VAST ${rule.since}.` : '';
      report(
        {
          severity: 'warning',
          section,
          message: `VAST ${version} has no ${name} of <${element.name}>.${since}`,
          fix: rule
            ? 'Raise the version of the document, or remove it.'
            : 'Remove it, or move it to Extensions.',
        },
        start,
      );
    } else {
      const wrong = complaintOf(value, rule.is);
      if (wrong)
        report(
          {
            severity: 'error',
            section,
            message: `${name} of <${element.name}> ${wrong.is}.`,
            fix: wrong.fix,
          },
          valueSpan.start,
        );
    }
  }
}

function checkChildren(
  element: XmlElement,
  { children, oneOf, content, section }: ElementRule,
  version: VastVersion,
  report: Report,
): { element: XmlElement; shape: string }[] {
  if (!children) {
    if (content !== 'any')
      for (const child of elements(element).slice(0, 1))
        report(
          {
            severity: 'error',
            section,
            message: `<${element.name}> holds <${child.name}>, but takes text only.`,
            fix: 'Remove the element.',
          },
          child.start,
        );
    return [];
  }
  const rules = new Map<string, ChildRule>(Object.entries(children));
  const seen = new Map<string, number>();
  const found: { element: XmlElement; shape: string }[] = [];
  for (const child of elements(element)) {
    const rule = rules.get(child.name);
    if (!rule) {
      report(unexpected(element, child, version, section, rules), child.start);
      continue;
    }
    found.push({ element: child, shape: rule.shape });
    const times = (seen.get(child.name) ?? 0) + 1;
    seen.set(child.name, times);
    if (!isAtLeast(version, rule.since ?? '2.0'))
      report(
        {
          severity: 'warning',
          section,
          message: `<${child.name}> came with VAST ${rule.since ?? ''}, but the document says ${version}.`,
          fix: 'Raise the version of the document, or remove the element.',
        },
        child.start,
      );
    if (times === 2 && rule.max === 1)
      report(
        {
          severity: 'error',
          section,
          message: `<${element.name}> holds more than one <${child.name}>.`,
          fix: 'Keep one.',
        },
        child.start,
      );
  }
  checkMissing(element, { children, oneOf, section }, version, seen, report);
  return found;
}

function checkMissing(
  element: XmlElement,
  { children = {}, oneOf, section }: Pick<ElementRule, 'children' | 'oneOf' | 'section'>,
  version: VastVersion,
  seen: ReadonlyMap<string, number>,
  report: Report,
): void {
  for (const [name, rule] of Object.entries(children))
    if (rule.min === 1 && !seen.has(name) && isAtLeast(version, rule.since ?? '2.0'))
      report(missing(element, `<${name}>`, section), element.start);
  if (oneOf && !oneOf.some((name) => seen.has(name)))
    report(missing(element, oneOf.map((name) => `<${name}>`).join(' or '), section), element.start);
  if (element.name === 'Ad' && seen.size > 1)
    report(
      {
        severity: 'error',
        section,
        message: '<Ad> holds both <InLine> and <Wrapper>.',
        fix: 'Make two ads of it.',
      },
      element.start,
    );
}

const missing = (
  element: XmlElement,
  what: string,
  section: string | undefined,
): Omit<VastProblem, 'line' | 'column'> => ({
  severity: 'error',
  section,
  message: `<${element.name}> has no ${what}.`,
  fix: `Add ${what}.`,
});

function unexpected(
  element: XmlElement,
  child: XmlElement,
  version: VastVersion,
  section: string | undefined,
  rules: ReadonlyMap<string, ChildRule>,
): Omit<VastProblem, 'line' | 'column'> {
  const meant = [...rules.keys()].find((name) => name.toLowerCase() === child.name.toLowerCase());
  return {
    severity: 'warning',
    section,
    message: `VAST ${version} has no <${child.name}> in <${element.name}>, so players ignore it.`,
    fix: meant ? `Write <${meant}>: names are case-sensitive.` : 'Remove it, or move it to Extensions.',
  };
}

function checkContent(element: XmlElement, { content, section }: ElementRule, report: Report): void {
  if (content === undefined || content === 'any') return;
  const text = textOf(element).trim();
  const wrong = complaintOf(text, content);
  if (!wrong) return;
  const first = element.children.find((child) => child.type === 'text' && child.value.trim() !== '');
  // Nothing to call is no mistake of a tracker: players leave it out.
  const severity = text === '' && content === 'url' ? 'warning' : 'error';
  report(
    { severity, section, message: `<${element.name}> ${wrong.is}.`, fix: wrong.fix },
    first?.start ?? element.start,
  );
}

function checkEvent(element: XmlElement, version: VastVersion, report: Report): void {
  const event = element.attributes.find(({ name }) => name === 'event');
  if (!event) return;
  const rule = trackingEvents.get(event.value);
  const at = event.valueSpan.start;
  if (!rule)
    report(
      {
        severity: 'warning',
        section: '3.14.1',
        message: `No version of VAST has an event ${JSON.stringify(event.value)}, so it is never called.`,
        fix: 'Use an event name of VAST; names are case-sensitive.',
      },
      at,
    );
  else if (!isAtLeast(version, rule.since) || (rule.until && !isAtLeast(rule.until, version)))
    report(
      {
        severity: 'warning',
        section: '3.14.1',
        message: `VAST ${version} has no event ${event.value}: it is one of ${rule.since}${rule.until ? ` to ${rule.until}` : ' and later'}.`,
        fix: 'Use the event of this version; some players call it anyway.',
      },
      at,
    );
  if (event.value === 'progress' && !element.attributes.some(({ name }) => name === 'offset'))
    report(
      {
        severity: 'error',
        section: '3.14.1',
        message: 'A progress event has no offset, so it is never due.',
        fix: 'Add offset="00:00:05", or a percentage such as offset="25%".',
      },
      element.start,
    );
}
