// router.tsx — a URL for the project list and for every station.
import { createBrowserRouter, Outlet, replace, useRouteError } from 'react-router';
import { Tips } from '../controls/Tips.tsx';
import { Finder } from '../find/Finder.tsx';

export const router = createBrowserRouter([
  {
    element: <Frame />,
    hydrateFallbackElement: <p className="p-6 text-quiet">Opening…</p>,
    children: [
      {
        path: '/',
        errorElement: <Failure />,
        lazy: async () => ({ Component: (await import('../projects/ProjectList.tsx')).ProjectList }),
      },
      {
        path: '/projects/:id',
        errorElement: <Failure />,
        lazy: async () => ({ Component: (await import('../workplace/Workplace.tsx')).Workplace }),
        children: [
          { index: true, loader: ({ params }) => replace(`/projects/${params.id}/build`) },
          { path: ':station', lazy: async () => ({ Component: (await import('../workplace/Workplace.tsx')).Panel }) },
        ],
      },
      {
        path: '/help/:page?',
        errorElement: <Failure />,
        lazy: async () => ({ Component: (await import('../help/HelpPage.tsx')).HelpPage }),
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
