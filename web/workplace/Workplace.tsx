// Workplace.tsx — the workplace of one project: stack on the left, work in the middle, station on the right, proof below.
import { Suspense, useEffect, useState } from 'react';
import { Outlet, useParams } from 'react-router';
import useSWR from 'swr';
import { STATIONS } from '../stations/index.ts';
import type { Station } from '../stations/kind.ts';
import { closeProject, fetchNewest, openProject, useDocumentPart, useProject } from '../store/project.ts';
import { screen } from '../store/screen.ts';
import { ConflictDialog } from './ConflictDialog.tsx';
import { DropTarget } from './DropTarget.tsx';
import { Header } from './Header.tsx';
import { HelpDialog } from './HelpDialog.tsx';
import { useKeys } from './keys.ts';
import { useOffered } from './offered.ts';
import { ProofStrip } from './ProofStrip.tsx';
import { StackPanel } from './StackPanel.tsx';
import { WorkView } from './WorkView.tsx';

let visits = 0;

export function Workplace() {
  const { id = '' } = useParams();
  return <Visit key={id} id={id} />;
}

function Visit({ id }: { id: string }) {
  // The document is edited here and saved from here: fetching it again behind the artist's back would fight with that.
  // Each visit asks anew: what an earlier one left in the cache is not the newest revision.
  const [visit] = useState(() => ++visits);
  const { data, error } = useSWR(['project', id, visit], () => fetchNewest(id), {
    revalidateOnFocus: false,
    revalidateOnReconnect: false,
    revalidateIfStale: false,
  });
  const open = useProject((state) => state.id === id);
  useEffect(() => {
    if (data && data.reply.id === id && useProject.getState().id !== id) openProject(data);
  }, [data, id]);
  useEffect(
    () => () => {
      closeProject();
      screen.leave();
    },
    [],
  );
  if (error) throw error;
  return open ? <OpenWorkplace /> : <p className="p-10 text-quiet">Opening the project…</p>;
}

/** The station that the address names; an address that names none is that of no page. */
function useStation(): Station {
  const { station: path } = useParams();
  const station = STATIONS.find((each) => each.path === path);
  if (!station) throw new Error('There is no such page.');
  return station;
}

/** What stands on the right. */
export function Panel() {
  const { panel: Shown } = useStation();
  return <Shown />;
}

function OpenWorkplace() {
  const station = useStation();
  const help = useKeys(station);
  useOffered(station);
  const name = useDocumentPart((document) => document.name);
  return (
    <DropTarget>
      <title>{`${station.title} · ${name} · Outline Stack`}</title>
      <div className="grid h-full grid-cols-[16.5rem_minmax(0,1fr)_20.5rem] grid-rows-[3.25rem_minmax(0,1fr)_2.75rem]">
        <Header onHelp={help.open} />
        <StackPanel />
        <WorkView station={station} />
        <aside className="overflow-y-auto border-rule border-l bg-paper" aria-label="Station">
          <Suspense fallback={null}>
            <Outlet />
          </Suspense>
        </aside>
        <ProofStrip />
        <HelpDialog isOpen={help.isOpen} onClose={help.close} />
        <ConflictDialog />
      </div>
    </DropTarget>
  );
}
