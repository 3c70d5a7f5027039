// A page that could not be drawn: what is kept is safe, and there is a way on.
import { Link, useRouteError } from 'react-router';

export function Broken() {
  const error = useRouteError();
  return (
    <main role="alert" className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl">This page could not be drawn</h1>
      <p className="mt-3">
        That is a fault of Bofta. What was acknowledged is kept; nothing on the table changes by looking
        again.
      </p>
      <p className="mt-2 text-soft">{error instanceof Error ? error.message : 'No more is known.'}</p>
      <div className="mt-5 flex gap-3">
        <button type="button" className="btn btn-act" onClick={() => window.location.reload()}>
          Look again
        </button>
        <Link to="/" className="btn" reloadDocument>
          To the shelf
        </Link>
      </div>
    </main>
  );
}
