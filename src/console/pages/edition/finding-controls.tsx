import type { Finding } from '../../../core/checks/model.js';
import { severityNames } from '../../../core/words/names.js';
import { Choice, Controls, Finder, NetworkChoice } from '../../components/controls.js';
import { useAddress } from '../../components/use-address.js';
import { useNetworks } from '../../queries.js';

/** Which findings are shown; part of the address. */
export function useFindingFilter() {
  const [search, set] = useAddress();
  const of = (name: string) => search.get(name) ?? '';
  const [find, network, severity] = [of('find').trim().toLowerCase(), of('network'), of('severity')];
  return {
    search,
    set,
    fits: (finding: Finding) =>
      `${finding.rule} ${finding.message} ${finding.place?.path ?? ''}`.toLowerCase().includes(find) &&
      (network === '' || finding.network === network) &&
      (severity === '' || finding.severity === severity),
  };
}

interface FindingControlsProps {
  findings: readonly Finding[];
  filter: ReturnType<typeof useFindingFilter>;
}

export function FindingControls({ findings, filter: { search, set } }: FindingControlsProps) {
  const networks = useNetworks().data ?? [];
  const named = new Set(findings.map(({ network }) => network));
  return (
    <Controls name="Findings">
      <Finder
        label="Find a rule, a word, a file"
        value={search.get('find') ?? ''}
        set={(find) => set({ find })}
      />
      <Choice
        label="Severity"
        all="every severity"
        value={search.get('severity') ?? ''}
        set={(severity) => set({ severity })}
        options={severityNames.map((name) => [name, `${name}s`] as const)}
      />
      <NetworkChoice
        value={search.get('network') ?? ''}
        set={(network) => set({ network })}
        networks={networks.filter(({ id }) => named.has(id)).map(({ id, name }) => [id, name] as const)}
      />
    </Controls>
  );
}
