import { useMutation } from '@tanstack/react-query';
import type { ProfileDraft } from '../../../api/networks.js';
import { formatNames, platformNames } from '../../../core/words/names.js';
import { call, type CallError } from '../../api.js';
import { TextField } from '../../components/fields.js';
import { platformLabels } from '../../../core/words/platform-labels.js';
import { ProblemNote } from '../../components/states.js';
import { useAddress } from '../../components/use-address.js';
import { useKeptFields } from '../../components/use-kept-fields.js';
import { answersOf, parts, type AnswerFields } from './answers.js';
import { DraftIt } from './draft-it.js';

/** What is asked about a network, part by part; what was answered is kept in the tab. */
export function Answers({ setText, hasText }: { setText: (text: string) => void; hasText: boolean }) {
  const [search, set] = useAddress();
  const step = Math.min(Math.max(Number(search.get('step') ?? 1) || 1, 1), parts.length);
  const { at, put, formats, platforms, draft } = useAnswers(setText);
  const part = parts[step - 1] ?? parts[0];
  if (!part) return null;
  return (
    <form aria-label={part.name} onSubmit={(event) => event.preventDefault()}>
      <Questions step={step} go={(next) => set({ step: String(next) })} />
      <p className="soft">{part.about}</p>
      <PartFields part={part} at={at} put={put} error={draft.error} />
      {step === 1 && (
        <>
          <Ticks
            name="Platforms"
            all={platformNames}
            words={(one) => platformLabels[one]}
            ticked={platforms}
            set={(next) => put('platforms', next)}
          />
          <Ticks
            name="Formats"
            all={formatNames}
            words={(one) => one}
            ticked={formats}
            set={(next) => put('formats', next)}
          />
        </>
      )}
      {draft.error && <ProblemNote error={draft.error} whole />}
      <div className="actions">
        {step < parts.length && (
          <button
            type="button"
            className="btn btn-sm btn-outline-primary"
            onClick={() => set({ step: String(step + 1) })}
          >
            Next: {parts[step]?.name}
          </button>
        )}
        <DraftIt
          hasText={hasText}
          isPending={draft.isPending || at('id') === '' || at('name') === ''}
          act={() => draft.mutate()}
        />
      </div>
    </form>
  );
}

/** The answers of this tab, and the call that makes a draft of them. */
function useAnswers(setText: (text: string) => void) {
  const [fields, keep] = useKeptFields<AnswerFields>('profile answers', {});
  const answers = new Map(Object.entries(fields));
  const at = (field: string) => answers.get(field) ?? '';
  const put = (field: string, value: string) => keep({ [field]: value });
  const formats = (at('formats') || 'banner').split(' ');
  const platforms = (at('platforms') || platformNames.join(' ')).split(' ');
  const draft = useMutation<ProfileDraft, CallError>({
    mutationFn: () => call('draftNetwork', { body: answersOf(fields, formats, platforms) }),
    onSuccess: ({ text }) => setText(text),
  });
  return { at, put, formats, platforms, draft };
}

/** The parts of the form, by number. */
function Questions({ step, go }: { step: number; go: (step: number) => void }) {
  return (
    <nav className="subnav" aria-label="Questions">
      {parts.map(({ name }, index) => (
        <button
          key={name}
          type="button"
          className={index + 1 === step ? 'active' : ''}
          aria-current={index + 1 === step ? 'step' : undefined}
          onClick={() => go(index + 1)}
        >
          {index + 1} {name}
        </button>
      ))}
    </nav>
  );
}

interface PartFieldsProps {
  part: (typeof parts)[number];
  at: (field: string) => string;
  put: (field: string, value: string) => void;
  error: CallError | null;
}

function PartFields({ part, at, put, error }: PartFieldsProps) {
  return (
    <div className="fields">
      {part.questions.map(({ field, label, hint }) => (
        <TextField
          key={field}
          id={`answer-${field}`}
          label={label}
          value={at(field)}
          placeholder={hint}
          onChange={(value) => put(field, value)}
          error={error}
          faultsOf={[field]}
          mono={field !== 'name' && field !== 'about'}
        />
      ))}
    </div>
  );
}

/** Several of a list; at least one. */
function Ticks<Name extends string>({
  name,
  all,
  words,
  ticked,
  set,
}: {
  name: string;
  all: readonly Name[];
  words: (one: Name) => string;
  ticked: readonly string[];
  set: (ticked: string) => void;
}) {
  return (
    <fieldset className="ticks">
      <legend>{name}</legend>
      {all.map((one) => (
        <label key={one}>
          <input
            type="checkbox"
            className="form-check-input"
            checked={ticked.includes(one)}
            onChange={(event) => {
              const next = all.filter((other) =>
                other === one ? event.target.checked : ticked.includes(other),
              );
              if (next.length > 0) set(next.join(' '));
            }}
          />{' '}
          {words(one)}
        </label>
      ))}
    </fieldset>
  );
}
