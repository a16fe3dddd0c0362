import { createBrowserRouter, Navigate } from 'react-router'
import { BuildFrame } from './build-frame.tsx'
import { Frame } from './frame.tsx'
import { NotFound, RouteError } from './not-found.tsx'
import { ROOMS } from './rooms.ts'

export const router = createBrowserRouter([
  {
    path: '/',
    element: <Frame />,
    errorElement: <RouteError />,
    hydrateFallbackElement: <p className="p-6">Opening …</p>,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('../features/garage/garage-page.tsx')).GaragePage }) },
      { path: 'open', lazy: async () => ({ Component: (await import('../features/files/open-file-page.tsx')).OpenFilePage }) },
      { path: 'formulas/:name?', lazy: async () => ({ Component: (await import('../features/formulas/formulas-page.tsx')).FormulasPage }) },
      { path: 'copies', lazy: async () => ({ Component: (await import('../features/copies/copies-page.tsx')).CopiesPage }) },
      { path: 'join', lazy: async () => ({ Component: (await import('../features/sign-in/join-page.tsx')).JoinPage }) },
      { path: 'shared', lazy: async () => ({ Component: (await import('../features/shared-sheet/shared-page.tsx')).SharedPage }) },
      { path: 'new', lazy: async () => ({ Component: (await import('../features/garage/new-build-page.tsx')).NewBuildPage }) },
      {
        path: 'builds/:buildId',
        element: <BuildFrame />,
        children: [
          { index: true, element: <Navigate to="board" replace /> },
          ...ROOMS.map((room) => ({ path: room.path, lazy: async () => ({ Component: await room.page() }) })),
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
])
