// A scrap while it is drawn: every change goes to the server, which says where the corners come to lie; what does not
// stand stays as it was drawn, with the reason.
import { useCallback, useRef, useState } from 'react';
import { ApiError, api, must, type ScrapDraft, type ScrapDrawn } from '../../../api/client';

export interface Drawing {
  draft: ScrapDraft;
  /** What it comes to; nothing before the first answer. */
  drawn: ScrapDrawn | null;
  problem: { field: string; message: string } | null;
  canUndo: boolean;
  change: (next: ScrapDraft) => Promise<void>;
  /** Asks what it comes to as it is. */
  read: () => void;
  undo: () => void;
}

export function useScrapDraft(project: string, first: ScrapDraft): Drawing {
  const [draft, setDraft] = useState(first);
  const [drawn, setDrawn] = useState<ScrapDrawn | null>(null);
  const [problem, setProblem] = useState<Drawing['problem']>(null);
  const [before, setBefore] = useState<ScrapDraft[]>([]);
  const latest = useRef(0);

  const ask = useCallback(
    async (next: ScrapDraft) => {
      latest.current += 1;
      const mine = latest.current;
      setDraft(next);
      try {
        const path = { id: project };
        const answer = await must(
          api.POST('/api/projects/{id}/scrap-draft', { params: { path }, body: next }),
        );
        // A later change is on its way already.
        if (mine !== latest.current) return;
        setProblem(answer.problem ?? null);
        if (answer.problem) return;
        setDraft(answer.draft);
        setDrawn(answer);
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (mine === latest.current) setProblem({ field: '', message: error.message });
      }
    },
    [project],
  );

  return {
    draft,
    drawn,
    problem,
    canUndo: before.length > 0,
    change: async (next) => {
      setBefore((all) => [...all.slice(-99), draft]);
      await ask(next);
    },
    read: () => void ask(draft),
    undo: () => {
      const last = before[before.length - 1];
      if (!last) return;
      setBefore((all) => all.slice(0, -1));
      void ask(last);
    },
  };
}
