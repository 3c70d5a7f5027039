// One open project: its view, and the ways to change it. Edits are sent one after another, each on the revision the one
// before gave, so that quick typing never conflicts with itself.
import { useQuery, useQueryClient } from '@tanstack/react-query';
import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { ApiError, api, type Edit, isPassing, must, type ProblemView, type ProjectView } from '../api/client';
import { OK, type Outcome } from './outcome';
import { useWaiting, type Waiting } from './useWaiting';

export interface Conflict {
  current: ProjectView;
  edits: Edit[];
  /** What was refused, in a few words. */
  yours: string[];
}

interface ProjectStore {
  view: ProjectView;
  /** Makes edits, all or none. */
  edit: (...edits: Edit[]) => Promise<Outcome>;
  undo: () => void;
  redo: () => void;
  /** Shows what edits would do without making them; nothing shows the project as it is. Gives why they cannot stand. */
  preview: (edits: Edit[] | null) => Promise<ProblemView[]>;
  conflict: Conflict | null;
  settle: (mine: boolean) => void;
  /** A message that is not about one field. */
  message: string | null;
  notify: (message: string | null) => void;
  put: (view: ProjectView) => void;
  refetch: () => void;
  /** A change that is not kept yet because the program cannot just now. */
  waiting: Waiting | null;
}

const Context = createContext<ProjectStore | null>(null);

export function useProject(): ProjectStore {
  const store = useContext(Context);
  if (!store) throw new Error('useProject belongs inside a ProjectProvider');
  return store;
}

export function useProjectQuery(id: string) {
  return useQuery({
    queryKey: ['project', id],
    queryFn: () => must(api.GET('/api/projects/{id}', { params: { path: { id } } })),
  });
}

export function ProjectProvider({ initial, children }: { initial: ProjectView; children: ReactNode }) {
  const id = initial.id;
  const queries = useQueryClient();
  const latest = useRef(initial);
  if (initial.revision > latest.current.revision || initial.id !== latest.current.id)
    latest.current = initial;
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const [preview, setPreview] = useState<ProjectView | null>(null);
  const wanted = useRef<{ edits: Edit[] | null; running: Promise<ProblemView[]> | null }>({
    edits: null,
    running: null,
  });
  const [conflict, setConflict] = useState<Conflict | null>(null);
  const unsettled = useRef<Conflict | null>(null);
  const inConflict = useCallback((found: Conflict | null) => {
    unsettled.current = found;
    setConflict(found);
  }, []);
  const [message, notify] = useState<string | null>(null);
  const { waiting, until } = useWaiting();
  const tabs = useRef<BroadcastChannel | null>(null);

  // What another tab changes is seen here at once, without a reload.
  useEffect(() => {
    const channel = new BroadcastChannel('bofta-projects');
    tabs.current = channel;
    channel.onmessage = ({ data }) => {
      if (data.id === id && data.revision > latest.current.revision)
        queries.invalidateQueries({ queryKey: ['project', id] });
    };
    return () => {
      tabs.current = null;
      channel.close();
    };
  }, [id, queries]);

  const put = useCallback(
    (view: ProjectView) => {
      latest.current = view;
      tabs.current?.postMessage({ id, revision: view.revision });
      queries.setQueryData(['project', id], view);
      queries.invalidateQueries({ queryKey: ['step', id] });
      queries.invalidateQueries({ queryKey: ['alternatives', id] });
      queries.invalidateQueries({ queryKey: ['widths', id] });
      queries.invalidateQueries({ queryKey: ['notions'] });
      queries.invalidateQueries({ queryKey: ['shelf'] });
    },
    [id, queries],
  );

  const inTurn = useCallback(<T,>(work: () => Promise<T>): Promise<T> => {
    const next = queue.current.then(work, work);
    queue.current = next.catch(() => undefined);
    return next;
  }, []);

  const refused = useCallback(
    (error: unknown, edits: Edit[]): Outcome => {
      if (!(error instanceof ApiError)) throw error;
      if (error.body.current) {
        inConflict({ current: error.body.current, edits, yours: error.body.yours ? [error.body.yours] : [] });
        return { is: 'conflict' };
      }
      const { problems } = error.body;
      if (problems.length === 0 || problems.some((p) => p.field === 'steps_done')) notify(error.message);
      return problems.length > 0
        ? { is: 'problems', problems }
        : { is: 'unreached', message: `This is not saved: ${error.message}` };
    },
    [inConflict],
  );

  const edit = useCallback(
    (...edits: Edit[]) =>
      inTurn(async (): Promise<Outcome> => {
        // While it is not settled, what is changed further waits with it: nothing overwrites what is there now.
        const waits = unsettled.current;
        if (waits) {
          inConflict({ ...waits, edits: [...waits.edits, ...edits] });
          return { is: 'conflict' };
        }
        const based_on = latest.current.revision;
        const path = { id };
        let sentBefore = false;
        try {
          const view = await until(async () => {
            try {
              const body = { based_on, edits };
              return await must(api.POST('/api/projects/{id}/edits', { params: { path }, body }));
            } catch (error) {
              // An answer that was lost on its way back looks like somebody else's change.
              if (sentBefore && error instanceof ApiError && error.body.current) {
                const now = error.body.current;
                const body = { based_on: now.revision, edits };
                const again = await must(api.POST('/api/projects/{id}/preview', { params: { path }, body }));
                if (isSame(now, again)) return now;
              }
              sentBefore ||= isPassing(error);
              throw error;
            }
          });
          put(view);
          notify(null);
          return OK;
        } catch (error) {
          return refused(error, edits);
        } finally {
          wanted.current.edits = null;
          setPreview(null);
        }
      }),
    [id, inTurn, inConflict, put, refused, until],
  );

  const travel = useCallback(
    (path: '/api/projects/{id}/undo' | '/api/projects/{id}/redo') => {
      inTurn(async () => {
        try {
          const body = { based_on: latest.current.revision };
          put(await until(() => must(api.POST(path, { params: { path: { id } }, body }))));
        } catch (error) {
          refused(error, []);
        }
      });
    },
    [id, inTurn, put, refused, until],
  );

  // Only the newest wish is asked for: while one answer is on its way, older ones are dropped.
  const runPreview = useCallback(async (): Promise<ProblemView[]> => {
    const state = wanted.current;
    state.running ??= (async () => {
      let problems: ProblemView[] = [];
      while (state.edits) {
        const edits = state.edits;
        problems = [];
        try {
          const body = { based_on: latest.current.revision, edits };
          const view = await must(api.POST('/api/projects/{id}/preview', { params: { path: { id } }, body }));
          if (state.edits) setPreview(view);
        } catch (error) {
          // What cannot stand is not shown; whoever asked is told why.
          if (error instanceof ApiError) problems = error.body.problems;
        }
        if (state.edits === edits) break;
      }
      state.running = null;
      return problems;
    })();
    return state.running;
  }, [id]);

  const store = useMemo<ProjectStore>(
    () => ({
      view: preview ?? initial,
      edit,
      undo: () => travel('/api/projects/{id}/undo'),
      redo: () => travel('/api/projects/{id}/redo'),
      preview: (edits) => {
        wanted.current.edits = edits;
        if (edits) return runPreview();
        setPreview(null);
        return Promise.resolve([]);
      },
      conflict,
      settle: (mine) => {
        if (!conflict) return;
        put(conflict.current);
        inConflict(null);
        if (mine && conflict.edits.length > 0) edit(...conflict.edits);
      },
      message,
      notify,
      put,
      refetch: () => queries.invalidateQueries({ queryKey: ['project', id] }),
      waiting,
    }),
    [preview, initial, edit, travel, runPreview, conflict, inConflict, message, put, queries, id, waiting],
  );
  return <Context.Provider value={store}>{children}</Context.Provider>;
}

/** Whether making the edits once more would change nothing: then they are made. */
function isSame(now: ProjectView, again: ProjectView): boolean {
  const plain = (view: ProjectView) =>
    JSON.stringify({ ...view, revision: 0, tally: { ...view.tally, change: null } });
  return plain(now) === plain(again);
}
