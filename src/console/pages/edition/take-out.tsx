import { useQuery } from '@tanstack/react-query';
import { call, type CallError } from '../../api.js';
import type { WiringAnswer } from '../../../api/trees.js';
import { Controls, NetworkChoice } from '../../components/controls.js';
import { Diff } from '../../components/diff.js';
import { LeftToYou } from '../../components/left-to-you.js';
import { Shown } from '../../components/shown.js';
import { Empty, State } from '../../components/states.js';
import { useAddress } from '../../components/use-address.js';
import { keys, useNetworks } from '../../queries.js';
import { useSurvey, type Question } from '../../tree-queries.js';
import { TakeBack } from './take-back.js';
import { useLinked } from '../../components/use-linked.js';
import { WriteBar } from './write-bar.js';

/** The edits that take a network out of the tree, with what only it needed. */
export function TakeOutView({ question }: { question: Question }) {
  const [search, set] = useAddress();
  const names = useNetworks().data ?? [];
  const survey = useSurvey(question);
  const carried = new Set(survey.data?.facts.map(({ network }) => network));
  const network = search.get('network') ?? '';
  return (
    <>
      <p className="soft">
        Only what no other network needs is removed; what others need, and what people wrote, stays. The
        record is not changed: it requires the network until the title stops using it.
      </p>
      <Controls name="Network to remove">
        <NetworkChoice
          all="choose a network"
          value={network}
          set={(chosen) => set({ network: chosen })}
          networks={names.filter(({ id }) => carried.has(id)).map(({ id, name }) => [id, name] as const)}
        />
      </Controls>
      {network === '' ? (
        <Empty>Choose the network to see what would be removed.</Empty>
      ) : (
        <Unwiring question={question} network={network} />
      )}
    </>
  );
}

function Unwiring({ question, network }: { question: Question; network: string }) {
  const { snapshot, title, version } = question;
  const { linked, isOther } = useLinked(question);
  const wiring = useQuery<WiringAnswer, CallError>({
    queryKey: [...keys.work('unwire', snapshot, title, version), network],
    queryFn: ({ signal }) => call('unwire', { params: { snapshot }, body: { title, network }, signal }),
    staleTime: Infinity,
  });
  return (
    <>
      {linked && <TakeBack tree={linked} />}
      <Shown answer={wiring}>
        {(found) =>
          found.edits.length === 0 ? (
            <p>
              <State tone="good" shape="●">
                The tree contains nothing of it that wiring would remove.
              </State>
            </p>
          ) : (
            <>
              <WriteBar
                wanted={found}
                title={title}
                linked={linked}
                isOther={isOther}
                command={(folder) => `syndexa unwire ${network} ${folder} --title ${title} --write`}
              />
              <Diff patch={found.patch} edits={found.edits} />
              <LeftToYou steps={found.byHand} />
            </>
          )
        }
      </Shown>
    </>
  );
}
