import { Link } from 'react-router';

export function NotFound({ message }: { message?: string }) {
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1 className="text-2xl">Page not found</h1>
      <p className="mt-3">{message ?? 'Bofta has no page at this address.'}</p>
      <Link to="/" className="btn mt-5">
        To the shelf
      </Link>
    </main>
  );
}
