// What the maker writes down about a project; kept when the writing pauses or the field is left, undone like any change.
import { useCallback, useEffect, useId, useState } from 'react';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

export function Notes({ notes }: { notes: string }) {
  const { edit } = useProject();
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setProblem] = useState('');

  const keep = useCallback(async () => {
    if (draft === null) return;
    if (draft.trimEnd() === notes) {
      setDraft(null);
      setProblem('');
      return;
    }
    const why = whyNot(await edit({ edit: 'notes', text: draft }));
    setProblem(why.join(' '));
  }, [draft, notes, edit]);

  useEffect(() => {
    if (draft === null) return;
    const pause = setTimeout(keep, 3000);
    return () => clearTimeout(pause);
  }, [draft, keep]);

  // What is kept comes back as it was written.
  useEffect(() => {
    setDraft((d) => (d !== null && d.trimEnd() === notes ? null : d));
  }, [notes]);

  return (
    <section className="mt-6 max-w-3xl">
      <label htmlFor={id} className="font-heading text-lg">
        Notes
      </label>
      <p id={`${id}-hint`} className="text-sm text-soft">
        Threads, needles, what you would do differently. They print with the steps.
      </p>
      <textarea
        id={id}
        className="field mt-1 min-h-28 leading-snug"
        value={draft ?? notes}
        onChange={(e) => setDraft(e.target.value)}
        onBlur={keep}
        aria-describedby={`${id}-hint`}
        aria-invalid={problem !== ''}
      />
      {problem && (
        <p role="alert" className="mt-1 text-madder">
          {problem}
        </p>
      )}
    </section>
  );
}
