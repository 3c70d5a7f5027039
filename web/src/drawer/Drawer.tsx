// The drawer: what was put away, to be restored or deleted for good.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { AlertDialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { ApiError, api, done, must, type PutAwayView } from '../api/client';

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

type Kind = 'projects' | 'cloths';

const restore = (kind: Kind, id: string) =>
  kind === 'projects'
    ? api.POST('/api/projects/{id}/restore', { params: { path: { id } } })
    : api.POST('/api/cupboard/{id}/restore', { params: { path: { id } } });
const throwAway = (kind: Kind, id: string) =>
  kind === 'projects'
    ? api.DELETE('/api/drawer/projects/{id}', { params: { path: { id } } })
    : api.DELETE('/api/drawer/cloths/{id}', { params: { path: { id } } });

export function Drawer() {
  const queries = useQueryClient();
  const drawer = useQuery({ queryKey: ['drawer'], queryFn: () => must(api.GET('/api/drawer')) });
  const [said, setSaid] = useState<string | null>(null);
  useEffect(() => {
    document.title = 'The drawer · Bofta';
  }, []);
  const act = async (
    call: Promise<{ data?: unknown; error?: unknown; response: Response }>,
    told: string,
  ) => {
    try {
      const { data } = await done(call);
      const back = (data as { put_back?: string[] } | undefined)?.put_back ?? [];
      setSaid(back.length > 0 ? `${told} Back in the cupboard: ${back.join('; ')}.` : told);
    } catch (error) {
      setSaid(error instanceof ApiError ? error.message : String(error));
    }
    for (const key of ['drawer', 'shelf', 'cupboard']) queries.invalidateQueries({ queryKey: [key] });
  };
  const problem = drawer.isError ? drawer.error.message : null;
  const empty = drawer.data && drawer.data.projects.length + drawer.data.cloths.length === 0;
  return (
    <main className="mx-auto max-w-[1280px] px-5 pb-10">
      <header className="flex flex-wrap items-end gap-4 pt-5 pb-4">
        <h1 className="text-[34px] leading-none">The drawer</h1>
        <p className="w-full flex-1 text-soft max-[600px]:flex-none">
          What you put away stays here until you delete it.
        </p>
        <Link to="/cupboard" className="btn">
          The cupboard
        </Link>
        <Link to="/" className="btn">
          To the shelf
        </Link>
      </header>
      <div aria-hidden="true" className="ticks mb-6 h-5 rounded border border-tape-edge bg-tape" />
      <p role="status" className={said ? 'sheet mb-4 px-3 py-2' : 'sr-only'}>
        {said}
      </p>
      {drawer.isPending && <p className="text-soft">Opening the drawer …</p>}
      {problem && (
        <div role="alert" className="sheet p-4">
          <p>{problem}</p>
          <button type="button" className="btn mt-3" onClick={() => drawer.refetch()}>
            Try again
          </button>
        </div>
      )}
      {empty && <p className="sheet max-w-xl p-5">The drawer is empty.</p>}
      {(['projects', 'cloths'] as const).map((kind) => {
        const there = drawer.data?.[kind] ?? [];
        if (there.length === 0) return null;
        const place = kind === 'projects' ? 'on the shelf' : 'in the cupboard';
        return (
          <section key={kind} aria-label={kind === 'projects' ? 'Projects' : 'Cloths'} className="mb-6">
            <h2 className="mb-2 text-lg">{kind === 'projects' ? 'Projects' : 'Cloths'}</h2>
            <ul className="sheet divide-y divide-ruled">
              {there.map((one) => (
                <li key={one.id} className="flex flex-wrap items-center gap-x-4 gap-y-2 px-3 py-2">
                  <span className="min-w-40 flex-1">
                    <strong>{one.name}</strong>{' '}
                    <span className="text-soft">put away {WHEN.format(one.put_away_at)}</span>
                  </span>
                  <button
                    type="button"
                    className="btn"
                    aria-label={`Restore ${one.name}`}
                    onClick={() => act(restore(kind, one.id), `“${one.name}” is ${place} again.`)}
                  >
                    Restore
                  </button>
                  <ThrowAway
                    one={one}
                    back={
                      kind === 'projects'
                        ? 'Cloth, zips and rings that are set aside for it go back to the cupboard.'
                        : undefined
                    }
                    onThrow={() => act(throwAway(kind, one.id), `“${one.name}” is deleted.`)}
                  />
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </main>
  );
}

/** `back` says what becomes of what it has, where it may have something. */
function ThrowAway({ one, back, onThrow }: { one: PutAwayView; back?: string; onThrow: () => void }) {
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        <button type="button" className="btn" aria-label={`Delete ${one.name}`}>
          Delete …
        </button>
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-indigo/40" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[28rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 rounded border-2 border-indigo bg-paper p-5">
          <AlertDialog.Title className="font-heading text-xl">Delete “{one.name}”?</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            This can’t be undone.{back && ` ${back}`}
          </AlertDialog.Description>
          <div className="mt-5 flex flex-wrap gap-2">
            <AlertDialog.Cancel asChild>
              <button type="button" className="btn">
                Keep it in the drawer
              </button>
            </AlertDialog.Cancel>
            <AlertDialog.Action asChild>
              <button type="button" className="btn btn-act" onClick={onThrow}>
                Delete
              </button>
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
