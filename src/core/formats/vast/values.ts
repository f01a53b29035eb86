import type { ContentKind } from './shapes/rule.js';
import { millisecondsOf, offsetOf } from './times.js';

/** What is wrong with a value, if anything, to follow the name of what holds it. */
export function complaintOf(value: string, is: ContentKind): { is: string; fix: string } | undefined {
  const text = value.trim();
  const shown = JSON.stringify(text.length > 60 ? `${text.slice(0, 60)}…` : text);
  if (typeof is !== 'string')
    return is.some((one) => one.toLowerCase() === text.toLowerCase())
      ? undefined
      : { is: `is ${shown}, which is none of ${is.join(', ')}`, fix: `Write one of ${is.join(', ')}.` };
  switch (is) {
    case 'text':
      return undefined;
    case 'url':
      return urlComplaint(text, shown);
    case 'time':
      return millisecondsOf(text) === undefined
        ? { is: `is ${shown}, which is not a time`, fix: 'Write HH:MM:SS, such as 00:00:15.' }
        : undefined;
    case 'offset':
      return offsetOf(text) === undefined
        ? { is: `is ${shown}, which is neither a time nor a percentage`, fix: 'Write 00:00:05, or 25%.' }
        : undefined;
    case 'integer':
      return /^\d{1,15}$/.test(text)
        ? undefined
        : { is: `is ${shown}, not a whole number`, fix: 'Write a whole number.' };
    case 'number':
      return /^\d{1,15}(\.\d{1,15})?$/.test(text)
        ? undefined
        : { is: `is ${shown}, not a number`, fix: 'Write a number, such as 1.25.' };
    case 'boolean':
      return /^(true|false|0|1)$/i.test(text)
        ? undefined
        : { is: `is ${shown}, neither true nor false`, fix: 'Write true or false.' };
    case 'currency':
      return /^[A-Z]{3}$/i.test(text)
        ? undefined
        : { is: `is ${shown}, not a currency code`, fix: 'Write three letters, such as EUR.' };
  }
}

function urlComplaint(text: string, shown: string): { is: string; fix: string } | undefined {
  if (text === '') return { is: 'is empty', fix: 'Write a URL, or remove the element.' };
  if (/\s/.test(text)) return { is: `is ${shown}, which contains spaces`, fix: 'Escape spaces as %20.' };
  const filled = text.replace(/\[[A-Za-z_]+\]/g, '0');
  if (/^(https?:)?\/\//i.test(filled) && URL.canParse(filled.startsWith('//') ? `https:${filled}` : filled))
    return undefined;
  return {
    is: `is ${shown}, which is not a web address`,
    fix: 'Write a full URL that starts with https://.',
  };
}
