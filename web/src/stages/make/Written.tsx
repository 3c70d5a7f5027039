// What the maker writes about a project; kept when the writing pauses or the field is left, undone like any change.
import { useCallback, useEffect, useId, useRef, useState } from 'react';
import type { Edit } from '../../api/client';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

interface Props {
  label: string;
  hint: string;
  /** As it is kept. */
  kept: string;
  change: (text: string) => Edit;
}

export function Written({ label, hint, kept, change }: Props) {
  const { edit } = useProject();
  const id = useId();
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setProblem] = useState('');

  // What was sent is not sent again until it is written on.
  const sent = useRef<string | null>(null);

  const keep = useCallback(async () => {
    if (draft === null || draft === sent.current) return;
    if (draft.trimEnd() === kept) {
      setDraft(null);
      setProblem('');
      return;
    }
    sent.current = draft;
    const why = whyNot(await edit(change(draft)));
    setProblem(why.join(' '));
    // As it was kept: without what cannot be written.
    if (why.length === 0) setDraft((d) => (d === draft ? null : d));
  }, [draft, kept, edit, change]);

  useEffect(() => {
    if (draft === null) return;
    const pause = setTimeout(keep, 3000);
    return () => clearTimeout(pause);
  }, [draft, keep]);

  return (
    <section className="mt-6 max-w-3xl">
      <label htmlFor={id} className="font-heading text-lg">
        {label}
      </label>
      <p id={`${id}-hint`} className="text-sm text-soft">
        {hint}
      </p>
      <textarea
        id={id}
        className="field mt-1 min-h-28 leading-snug"
        value={draft ?? kept}
        onChange={(e) => {
          sent.current = null;
          setDraft(e.target.value);
        }}
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
