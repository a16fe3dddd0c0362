import { createBrowserRouter, Navigate } from 'react-router'
import { BuildFrame } from './build-frame.tsx'
import { Frame } from './frame.tsx'
import { NotFound, RouteError } from './not-found.tsx'

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
      { path: 'new', lazy: async () => ({ Component: (await import('../features/garage/new-build-page.tsx')).NewBuildPage }) },
      {
        path: 'builds/:buildId',
        element: <BuildFrame />,
        children: [
          { index: true, element: <Navigate to="board" replace /> },
          { path: 'board', lazy: async () => ({ Component: (await import('../features/board/board-page.tsx')).BoardPage }) },
          { path: 'plan', lazy: async () => ({ Component: (await import('../features/plan/plan-page.tsx')).PlanPage }) },
          { path: 'weight', lazy: async () => ({ Component: (await import('../features/weight/weight-page.tsx')).WeightPage }) },
          { path: 'parts', lazy: async () => ({ Component: (await import('../features/parts/parts-page.tsx')).PartsPage }) },
          { path: 'devices', lazy: async () => ({ Component: (await import('../features/devices/devices-page.tsx')).DevicesPage }) },
          { path: 'log', lazy: async () => ({ Component: (await import('../features/log/log-page.tsx')).LogPage }) },
          { path: 'power', lazy: async () => ({ Component: (await import('../features/power/power-page.tsx')).PowerPage }) },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
])
