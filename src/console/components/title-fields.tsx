import type { ReactNode } from 'react';
import type { Title } from '../../core/roster/model.js';
import type { CallError } from '../api.js';
import { TextField, words } from './fields.js';

/** The fields of a title as they are typed. */
export interface TitleDraft {
  name: string;
  android: string;
  ios: string;
  test: string;
  production: string;
}

/** The stages and editions that a draft means. */
export function meaningOf({
  name,
  android,
  ios,
  test,
  production,
}: TitleDraft): Pick<Title, 'name' | 'stages' | 'editions'> {
  return {
    name,
    stages: { test: words(test), production: words(production) },
    editions: {
      ...(android ? { android: { identifier: android } } : {}),
      ...(ios ? { ios: { identifier: ios } } : {}),
    },
  };
}

interface TitleFieldsProps {
  draft: TitleDraft;
  change: (part: Record<string, string>) => void;
  error: CallError | null;
  /** Beginning of the fields' DOM IDs. */
  prefix: string;
  /** What is below a field, such as what somebody else wrote into it. */
  note?: (key: keyof TitleDraft, label: string) => ReactNode;
}

const fields = [
  { key: 'name', label: 'Name', faultsOf: ['name'], mono: false },
  { key: 'android', label: 'Application ID (Android)', faultsOf: ['android.identifier'], mono: true },
  { key: 'ios', label: 'Bundle ID (iOS)', faultsOf: ['ios.identifier'], mono: true },
  { key: 'test', label: 'Builds for testing', faultsOf: ['stages', 'stages.test'], mono: false },
  { key: 'production', label: 'Builds that ship', faultsOf: ['stages.production'], mono: false },
] as const;

/** The fields that adding and changing a title have in common, each with the faults found in it. */
export function TitleFields({ draft, change, error, prefix, note }: TitleFieldsProps) {
  return fields.map(({ key, label, faultsOf, mono }) => (
    <TextField
      key={key}
      id={`${prefix}-${key}`}
      label={label}
      value={draft[key]}
      onChange={(value) => change({ [key]: value })}
      faultsOf={faultsOf}
      error={error}
      mono={mono}
      note={note?.(key, label)}
    />
  ));
}
