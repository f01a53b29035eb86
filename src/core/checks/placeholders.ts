import { withPlatformLabels } from '../words/platform-labels.js';

const placeholder = /\{(\w+)(\.label)?\}/g;

/**
 * Fills the placeholders of a message. `{name}` becomes the value as it is, `{name.label}` the value with its platforms
 * as people write them.
 */
export function withValues(text: string, valueOf: (name: string) => string): string {
  return text.replace(placeholder, (_, name: string, label?: string) =>
    label === undefined ? valueOf(name) : withPlatformLabels(valueOf(name)),
  );
}

/** A message as documentation shows it: its placeholders by name alone. */
export function withNames(text: string): string {
  return text.replace(placeholder, '{$1}');
}
