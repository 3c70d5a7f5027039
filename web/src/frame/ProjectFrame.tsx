// The frame of an open project: name, tape, the stage, the tally; keys, undo and redo, conflicts.
import { Redo2, Undo2, X } from 'lucide-react';
import { AlertDialog } from 'radix-ui';
import { useEffect, useRef } from 'react';
import { Link, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { ApiError } from '../api/client';
import { TextField } from '../fields/TextField';
import { ProjectProvider, useProject, useProjectQuery } from '../project/ProjectContext';
import { CuttingBegun } from './CuttingBegun';
import { NotFound } from './NotFound';
import { STAGES } from './stages';
import { Tally } from './Tally';
import { Tape } from './Tape';

export function ProjectFrame() {
  const { id = '' } = useParams();
  const query = useProjectQuery(id);
  if (query.isPending) {
    return (
      <main className="p-10 text-soft" aria-busy="true">
        Opening the project …
      </main>
    );
  }
  if (query.isError) {
    const missing = query.error instanceof ApiError && query.error.status === 404;
    if (missing) return <NotFound message={query.error.message} />;
    // A document this version cannot read; everything else is a moment's trouble.
    const unreadable = query.error instanceof ApiError && query.error.status === 422;
    return (
      <main className="mx-auto max-w-xl p-10">
        <h1 className="text-2xl">Bofta could not read this project</h1>
        <p className="mt-3">{query.error.message}</p>
        <p className="mt-5 flex flex-wrap gap-2">
          {unreadable ? (
            <a className="btn btn-act" href={`/api/projects/${id}/document.json`} download={`${id}.json`}>
              Save its text
            </a>
          ) : (
            <button type="button" className="btn btn-act" onClick={() => query.refetch()}>
              Try again
            </button>
          )}
          <Link to="/" className="btn">
            To the shelf
          </Link>
        </p>
      </main>
    );
  }
  return (
    <ProjectProvider key={id} initial={query.data}>
      <Frame />
    </ProjectProvider>
  );
}

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.matches('input, textarea, select') || target.isContentEditable);

function Frame() {
  const { view, edit, undo, redo, message, notify, waiting } = useProject();
  const navigate = useNavigate();
  const main = useRef<HTMLElement>(null);
  const stage = useLocation().pathname.split('/')[3] ?? 'bag';

  useEffect(() => {
    document.title = `${view.name} · Bofta`;
  }, [view.name]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const key = e.key.toLowerCase();
      if ((e.ctrlKey || e.metaKey) && (key === 'z' || key === 'y')) {
        if (typing(e.target)) return;
        e.preventDefault();
        // At either end there is nothing to take back or to make again.
        if (key === 'y' || e.shiftKey) view.redo && redo();
        else view.undo && undo();
        return;
      }
      if (e.ctrlKey || e.metaKey || e.altKey || typing(e.target)) return;
      const to = STAGES[Number(e.key) - 1];
      if (!to) return;
      navigate(`/projects/${view.id}/${to.key}`);
      main.current?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [navigate, view.id, view.undo, view.redo, undo, redo]);

  return (
    <div className="mx-auto flex min-h-screen max-w-[1480px] flex-col px-4 pb-28 min-[900px]:px-5 min-[900px]:pb-4">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 pt-3.5 pb-3 print:hidden">
        <div className="w-[138px] flex-1 leading-none min-[900px]:flex-none">
          <Link to="/" className="font-heading text-[26px]" aria-label="Bofta, to the shelf">
            Bofta
          </Link>
          <TextField
            label="Name of the project"
            hideLabel
            value={view.name}
            onCommit={(value) => edit({ edit: 'project', field: 'name', value })}
            inputClassName="border-transparent bg-transparent px-0 py-0.5 text-sm hover:border-ruled"
          />
        </div>
        <Tape stage={stage} />
        <div className="flex gap-1">
          <button
            type="button"
            className="btn px-2"
            onClick={undo}
            disabled={!view.undo}
            title={view.undo ? `Undo: ${view.undo}` : 'Nothing to undo'}
            aria-label={view.undo ? `Undo ${view.undo}` : 'Undo'}
          >
            <Undo2 size={18} />
          </button>
          <button
            type="button"
            className="btn px-2"
            onClick={redo}
            disabled={!view.redo}
            title={view.redo ? `Redo: ${view.redo}` : 'Nothing to redo'}
            aria-label={view.redo ? `Redo ${view.redo}` : 'Redo'}
          >
            <Redo2 size={18} />
          </button>
        </div>
      </header>
      {waiting && (
        <div
          role="alert"
          className="mb-2 flex flex-wrap items-center gap-3 rounded border-2 border-weld bg-paper px-3 py-2"
        >
          <span className="min-w-60 flex-1">
            <strong>Not saved yet.</strong> {waiting.message} What you typed is kept on this page. Bofta sends
            it again.
          </span>
          <button type="button" className="btn" onClick={waiting.now}>
            Save now
          </button>
          <button type="button" className="btn" onClick={waiting.leave}>
            Leave it
          </button>
        </div>
      )}
      {message && (
        <div
          role="alert"
          className="mb-2 flex items-center gap-3 rounded border-2 border-madder bg-paper px-3 py-2"
        >
          <span className="flex-1">{message}</span>
          {view.steps_done > 0 && (
            <button
              type="button"
              className="btn"
              onClick={() => edit({ edit: 'steps-done', count: 0 }).then(() => notify(null))}
            >
              Begin the cutting again
            </button>
          )}
          <button
            type="button"
            className="btn px-2"
            aria-label="Close this message"
            onClick={() => notify(null)}
          >
            <X size={16} />
          </button>
        </div>
      )}
      <div className="flex flex-1 gap-4">
        <main ref={main} tabIndex={-1} className="min-w-0 flex-1 focus:outline-none">
          <p className="mb-2 hidden font-heading text-2xl print:block">{view.name}</p>
          {['bag', 'pieces', 'cloth', 'lay'].includes(stage) && <CuttingBegun />}
          <Outlet />
        </main>
        <Tally />
      </div>
      <ConflictDialog />
    </div>
  );
}

function ConflictDialog() {
  const { conflict, settle } = useProject();
  return (
    <AlertDialog.Root open={conflict !== null}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-indigo/40" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-50 w-[30rem] max-w-[92vw] -translate-x-1/2 -translate-y-1/2 rounded border-2 border-indigo bg-paper p-5">
          <AlertDialog.Title className="font-heading text-xl">Changed in two places</AlertDialog.Title>
          <AlertDialog.Description className="mt-2">
            This project was changed in another tab or window. Your change is not lost. Make it on top of the
            other change, or discard it and go on with what is there now.
          </AlertDialog.Description>
          <dl className="mt-3 grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
            <dt className="text-soft">changed last there</dt>
            <dd className="font-bold">{conflict?.current.undo ?? 'undone to the beginning'}</dd>
            {conflict && conflict.yours.length > 0 && (
              <>
                <dt className="text-soft">yours</dt>
                <dd className="font-bold">
                  {conflict.yours.join(', ')}
                  {conflict.edits.length > 1 && `, and ${conflict.edits.length - 1} more`}
                </dd>
              </>
            )}
          </dl>
          <div className="mt-5 flex flex-wrap gap-2">
            <AlertDialog.Action asChild>
              <button type="button" className="btn btn-act" onClick={() => settle(true)}>
                Make my change on top
              </button>
            </AlertDialog.Action>
            <AlertDialog.Cancel asChild>
              <button type="button" className="btn" onClick={() => settle(false)}>
                Discard my change
              </button>
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
