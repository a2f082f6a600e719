// router.tsx — a URL for the project list and for every station.
import { createBrowserRouter, Navigate, useRouteError } from 'react-router';
import { ProjectList } from '../projects/ProjectList.tsx';
import { BuildStation } from '../stations/BuildStation.tsx';
import { ComingStation } from '../stations/ComingStation.tsx';
import { ExportStation } from '../stations/ExportStation.tsx';
import { OutlineStation } from '../stations/OutlineStation.tsx';
import { ProofStation } from '../stations/ProofStation.tsx';
import { SourceStation } from '../stations/SourceStation.tsx';
import { Workplace } from '../workplace/Workplace.tsx';

export const router = createBrowserRouter([
  { path: '/', element: <ProjectList />, errorElement: <Failure /> },
  {
    path: '/projects/:id',
    element: <Workplace />,
    errorElement: <Failure />,
    children: [
      { index: true, element: <Navigate to="build" replace /> },
      { path: 'source', element: <SourceStation /> },
      { path: 'outline', element: <OutlineStation /> },
      { path: 'build', element: <BuildStation /> },
      {
        path: 'stage',
        element: <ComingStation title="Stage" text="Floor, backdrop, lights and camera will be set here." />,
      },
      {
        path: 'motion',
        element: <ComingStation title="Motion" text="Placement, light and camera will be keyed here." />,
      },
      { path: 'export', element: <ExportStation /> },
      { path: 'proof', element: <ProofStation /> },
    ],
  },
  { path: '*', element: <Failure /> },
]);

function Failure() {
  const error = useRouteError();
  const message = error instanceof Error ? error.message : 'There is no such page.';
  return (
    <main className="mx-auto max-w-lg px-6 py-24">
      <h1 className="font-serif text-3xl">This page could not be shown</h1>
      <p className="mt-3 text-quiet">{message}</p>
      <a className="mt-6 inline-block text-tide underline" href="/">
        Back to the projects
      </a>
    </main>
  );
}
