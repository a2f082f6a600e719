// Workplace.tsx — the workplace of one project: stack on the left, work in the middle, station on the right, proof below.
import { type CSSProperties, Suspense, useEffect, useState } from 'react';
import { Outlet, useParams } from 'react-router';
import useSWR from 'swr';
import { STATIONS } from '../stations/index.ts';
import type { Station } from '../stations/kind.ts';
import { type PanelState, usePanels } from '../store/panels.ts';
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

const widthOf = ({ width, isFolded }: PanelState) => (isFolded ? '0px' : `${width}px`);

function OpenWorkplace() {
  const station = useStation();
  const help = useKeys(station);
  useOffered(station);
  const name = useDocumentPart((document) => document.name);
  const { stack, station: stationPanel } = usePanels();
  return (
    <DropTarget>
      <title>{`${station.title} · ${name} · Outline Stack`}</title>
      <div
        className="grid h-full grid-cols-[var(--stack)_minmax(0,1fr)_var(--station)] grid-rows-[auto_minmax(0,1fr)_auto] max-md:h-auto max-md:grid-cols-[minmax(0,1fr)] max-md:grid-rows-none"
        style={{ '--stack': widthOf(stack), '--station': widthOf(stationPanel) } as CSSProperties}
      >
        <Header station={station.title} onHelp={help.open} />
        <StackPanel isFolded={stack.isFolded} />
        <WorkView station={station} />
        <aside
          className={`col-start-3 overflow-y-auto border-rule border-l bg-paper max-md:col-start-1 max-md:row-start-3 max-md:block max-md:border-b ${stationPanel.isFolded ? 'hidden' : ''}`}
          aria-label="Station"
        >
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
