import { describe, expect, it } from 'vitest';
import { withNames, withValues } from '../../../src/core/checks/placeholders.js';
import { rules } from '../../../src/core/checks/rules/index.js';

const values = new Map([
  ['id', 'ios-banner-1'],
  ['on', 'android and ios'],
]);

describe('placeholders of messages', () => {
  it('become values as they are, or with platforms as people write them', () => {
    const text = withValues('{id} is on {on}: {on.label}.', (name) => values.get(name) ?? '?');
    expect(text).toBe('ios-banner-1 is on android and ios: Android and iOS.');
  });

  it('are shown by name in documentation', () => {
    expect(withNames('{id} is on {on.label}, {b} and {c.label}.')).toBe('{id} is on {on}, {b} and {c}.');
  });

  it('of every rule are names alone', () => {
    const texts = rules.flatMap(({ meta }) => Object.values(meta.messages));
    const odd = texts.filter((text) => /[{}]/.test(withValues(text, () => 'x')));
    expect(odd).toEqual([]);
  });
});
