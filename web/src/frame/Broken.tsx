// A page that could not be drawn: what is kept is safe, and there is a way on.
import { Link, useRouteError } from 'react-router';

export function Broken() {
  const error = useRouteError();
  return (
    <main role="alert" className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl">Something went wrong on this page</h1>
      <p className="mt-3">Your work is saved. Reload to go on.</p>
      <p className="mt-2 text-soft">{error instanceof Error ? error.message : 'No details are known.'}</p>
      <div className="mt-5 flex gap-3">
        <button type="button" className="btn btn-act" onClick={() => window.location.reload()}>
          Reload
        </button>
        <Link to="/" className="btn" reloadDocument>
          To the shelf
        </Link>
      </div>
    </main>
  );
}
