import { describe, expect, it } from 'vitest';
import { stageOf } from '../../../src/core/roster/stage.js';

const stages = { test: ['debug', 'dev', 'staging', 'pre-prod'], production: ['release', 'prod'] };
const of = (name: string, type = name, flavours: string[] = []) => stageOf({ name, type, flavours }, stages);

describe('the stage of a composed name', () => {
  it.each([
    ['Debug-dev', 'test'],
    ['Release-dev', 'test'],
    ['Release-prod', 'production'],
    ['prodRelease', 'production'],
    ['Debug-prod', 'production'],
    ['Release-pre-prod', 'test'],
    ['ReleasePreProd', 'test'],
    ['Release (App Store)', 'production'],
    ['AppDEV', 'test'],
  ])('%s is %s', (name, stage) => {
    expect(of(name).stage).toBe(stage);
  });

  it.each(['Adhoc', 'Device', 'Reproduce', 'dev-prod', ''])('%s says nothing, or two things', (name) => {
    expect(of(name).stage).toBeNull();
  });

  it('is that of a whole name, a flavour or a type first', () => {
    expect(of('devRelease', 'release', ['dev'])).toEqual({ stage: 'test', by: 'flavour dev' });
    const named = { test: ['dev-release'], production: ['release', 'prod'] };
    expect(stageOf({ name: 'dev-release', type: 'release', flavours: [] }, named).stage).toBe('test');
  });
});
