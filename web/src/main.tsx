import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { Provider } from 'react-redux'
import { RouterProvider } from 'react-router'
import { router } from './app/router.tsx'
import { api } from './data/api.ts'
import { watchOutbox } from './data/outbox-sender.ts'
import { store } from './data/store.ts'
import './styles.css'

// What the open build needs is asked for while its page is still being fetched.
const buildId = /^\/builds\/([0-9a-f-]{36})/.exec(location.pathname)?.[1]
if (buildId) {
  store.dispatch(api.util.prefetch('board', buildId, {}))
  // The Board stands before the records come.
  if (!location.pathname.endsWith('/board')) store.dispatch(api.util.prefetch('records', buildId, {}))
}

watchOutbox()

createRoot(document.getElementById('root') as HTMLElement).render(
  <StrictMode>
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>
  </StrictMode>,
)
