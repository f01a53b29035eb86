import type { Progress } from '../../core/text/progress.js';

/** Work in progress, with a button that cancels it. */
export function Working({ progress, cancel }: { progress: Progress | null; cancel: () => void }) {
  return (
    <div className="working" role="status">
      <progress
        {...(progress && progress.total > 0 ? { value: progress.done, max: progress.total } : {})}
        aria-label="Progress"
      />
      <span className="soft">
        {progress
          ? `${progress.doing}${progress.total > 0 ? `: ${progress.done.toLocaleString('en')} of ${progress.total.toLocaleString('en')}` : ''}`
          : 'starting…'}
      </span>
      <button type="button" className="btn btn-sm btn-outline-secondary" onClick={cancel}>
        Cancel
      </button>
    </div>
  );
}
