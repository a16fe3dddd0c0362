import { Link } from 'react-router'

export function NotFound() {
  return (
    <main className="p-6">
      <h1>There is no such page</h1>
      <p className="my-3">The address names nothing here.</p>
      <Link className="word-link" to="/">
        Go to the Garage
      </Link>
    </main>
  )
}

/** A page that could not be loaded or drawn; what was typed stays in the browser. */
export function RouteError() {
  return (
    <main className="p-6" role="alert">
      <h1>This page could not be opened</h1>
      <p className="my-3">The server may be away. Drafts stay in this browser.</p>
      <button type="button" className="button" onClick={() => location.reload()}>
        Load the page again
      </button>
    </main>
  )
}
