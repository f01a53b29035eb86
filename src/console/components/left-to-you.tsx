/** What the edits leave to a person: what to do, why, and where. */
export function LeftToYou({
  steps,
}: {
  steps: readonly { what: string; why: string; where: string | null }[];
}) {
  if (steps.length === 0) return null;
  return (
    <section aria-label="Left to you">
      <h2>Left to you</h2>
      <ul>
        {steps.map(({ what, why, where }) => (
          <li key={`${what} ${why} ${where}`}>
            {what} <span className="soft">{why}</span> {where && <code>{where}</code>}
          </li>
        ))}
      </ul>
    </section>
  );
}
