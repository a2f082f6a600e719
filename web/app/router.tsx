// router.tsx — a URL for the project list and for every station.
import { createBrowserRouter, Outlet, replace, useRouteError } from 'react-router';
import { Tips } from '../controls/Tips.tsx';
import { Finder } from '../find/Finder.tsx';
import { ProjectList } from '../projects/ProjectList.tsx';
import { FIRST, STATIONS } from '../stations/index.ts';
import { Workplace } from '../workplace/Workplace.tsx';

export const router = createBrowserRouter([
  {
    element: <Frame />,
    children: [
      { path: '/', element: <ProjectList />, errorElement: <Failure /> },
      {
        path: '/projects/:id',
        element: <Workplace />,
        errorElement: <Failure />,
        children: [
          { index: true, loader: ({ params }) => replace(`/projects/${params.id}/${FIRST.path}`) },
          ...STATIONS.map(({ path, panel: Panel }) => ({ path, element: <Panel /> })),
        ],
      },
      { path: '*', element: <Failure /> },
    ],
  },
]);

/** What is there on every page. */
function Frame() {
  return (
    <>
      <Outlet />
      <Finder />
      <Tips />
    </>
  );
}

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
