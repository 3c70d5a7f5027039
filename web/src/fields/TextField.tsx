// One typed value. It is sent when the field is left or Enter is pressed; Escape puts back what was there. What cannot
// stand keeps what was typed, with the sentence beside it.
import { useEffect, useId, useRef, useState } from 'react';
import { type Answer, answersOf, type Outcome, whyNot } from '../project/outcome';

interface Props {
  label: string;
  value: string;
  /** In words, for those who hear the screen. */
  words?: string;
  onCommit: (value: string) => Promise<Outcome>;
  unit?: string;
  /** Told when it is left as it was. */
  onLeave?: () => void;
  /** Takes the sentence of what cannot stand, where there is no room for it at the field. */
  onProblem?: (problem: string | null) => void;
  hint?: string;
  placeholder?: string;
  hideLabel?: boolean;
  autoFocus?: boolean;
  /** Set when another place sends the focus here. */
  focusKey?: string | null;
  className?: string;
  inputClassName?: string;
}

export function TextField(props: Props) {
  const {
    label,
    value,
    words,
    onCommit,
    unit,
    hint,
    placeholder,
    hideLabel,
    onProblem,
    onLeave,
    focusKey,
    className = '',
    inputClassName = '',
  } = props;
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setOwn] = useState<string | null>(null);
  const [answers, setAnswers] = useState<Answer[]>([]);
  const setProblem = (text: string | null, asked: Answer[] = []) => {
    setOwn(text);
    setAnswers(asked);
    onProblem?.(text);
  };
  const sent = useRef<string | null>(null);
  // What was asked about is not asked again by leaving the field.
  const asked = useRef<string | null>(null);

  useEffect(() => {
    if (focusKey) {
      input.current?.focus();
      input.current?.select();
    }
  }, [focusKey]);

  const send = async (text: string) => {
    sent.current = text;
    asked.current = null;
    const outcome = await onCommit(text);
    const why = whyNot(outcome);
    if (why.length > 0) {
      const answers = answersOf(outcome);
      setProblem(why.join(' '), answers);
      if (answers.length > 0) asked.current = text;
    } else {
      setProblem(null);
      setDraft(null);
    }
    sent.current = null;
  };

  const commit = async () => {
    if (draft === null || draft === sent.current || draft === asked.current) return;
    if (draft.trim() === value) {
      setDraft(null);
      setProblem(null);
      return;
    }
    await send(draft);
  };

  // A question is answered by what it would have been typed as.
  const answer = async (text: string) => {
    setDraft(text);
    input.current?.focus();
    await send(text);
  };

  return (
    <div className={className}>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'block text-sm text-soft'}>
        {label}
      </label>
      <div className="relative">
        <input
          id={id}
          ref={input}
          className={`field ${unit ? 'pr-8' : ''} ${inputClassName}`}
          value={draft ?? value}
          placeholder={placeholder}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={problem !== null}
          aria-describedby={`${id}-note`}
          onFocus={(e) => e.target.select()}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={() => {
            if (draft === null || draft.trim() === value) onLeave?.();
            commit();
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault();
              commit();
            } else if (e.key === 'Escape' && draft !== null) {
              e.stopPropagation();
              setDraft(null);
              setProblem(null);
            } else if (e.key === 'Escape') {
              onLeave?.();
            }
          }}
        />
        {unit && (
          <span className="pointer-events-none absolute top-1/2 right-2 -translate-y-1/2 text-sm text-soft">
            {unit}
          </span>
        )}
      </div>
      <div id={`${id}-note`} aria-live="polite">
        {words && <span className="sr-only">{words}. </span>}
        {problem ? (
          <>
            <p className={onProblem ? 'sr-only' : 'mt-0.5 text-sm font-bold text-madder'}>{problem}</p>
            {answers.length > 0 && (
              <div className="mt-1 flex flex-wrap gap-1.5">
                {answers.map((a) => (
                  <button
                    key={a.text}
                    type="button"
                    className="btn px-2 py-0.5 text-sm"
                    onClick={() => answer(a.text)}
                  >
                    {a.label}
                  </button>
                ))}
              </div>
            )}
          </>
        ) : hint ? (
          <p className="text-sm text-soft">{hint}</p>
        ) : null}
      </div>
    </div>
  );
}
