import { useState } from 'react';
import { useParams } from 'react-router';
import { Choice, Controls } from '../../components/controls.js';
import { Heading } from '../../components/heading.js';
import { Empty, Failure, Loading } from '../../components/states.js';
import { useNetworks, useTitle } from '../../queries.js';
import { Collect } from './collect.js';
import { Provision } from './provision.js';

/** What the networks have of a title: created there, or brought in from there. */
export function AtNetworksPage() {
  const { title = '' } = useParams();
  const record = useTitle(title);
  const names = new Map(useNetworks().data?.map(({ id, name }) => [id, name]));
  const [network, setNetwork] = useState('');
  if (record.status === 'pending') return <Loading what="the title" />;
  if (record.status === 'error') return <Failure error={record.error} again={() => void record.refetch()} />;
  const { placements, networks: enrolled, name } = record.data.title;
  const used = [
    ...new Set([
      ...Object.keys(enrolled),
      ...Object.values(placements).flatMap(({ units }) => Object.keys(units)),
    ]),
  ];
  const first = used[0];
  return (
    <main className="page">
      <Heading>What do the networks have of {name}?</Heading>
      {first === undefined ? (
        <Empty>No network is wired into {name} yet. Name one at a placement on the record page.</Empty>
      ) : (
        <>
          <h2>Create there what is missing</h2>
          <p className="lede">
            Apps and units that a network lacks are created there, and their IDs are added to the record.
            Existing ones are used as they are.
          </p>
          <Provision title={title} networks={used} names={names} />
          <h2>Import a network’s list</h2>
          <p className="lede">
            The units of a network, matched to placements by name, format and platform: fetched, or from a
            table exported from its console.
          </p>
          <Controls name="Network">
            <Choice
              label="Network to collect from"
              value={network || first}
              set={setNetwork}
              options={used.map((id) => [id, names.get(id) ?? id] as const)}
            />
          </Controls>
          <Collect key={network || first} title={title} network={network || first} />
        </>
      )}
    </main>
  );
}
