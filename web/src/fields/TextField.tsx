// One typed value. It is sent when the field is left or Enter is pressed; Escape puts back what was there. What cannot
// stand keeps what was typed, with the sentence beside it.
import { useEffect, useId, useRef, useState } from 'react';
import { type Outcome, whyNot } from '../project/outcome';

interface Props {
  label: string;
  value: string;
  /** In words, for those who hear the screen. */
  words?: string;
  onCommit: (value: string) => Promise<Outcome>;
  unit?: string;
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
    focusKey,
    className = '',
    inputClassName = '',
  } = props;
  const id = useId();
  const input = useRef<HTMLInputElement>(null);
  const [draft, setDraft] = useState<string | null>(null);
  const [problem, setOwn] = useState<string | null>(null);
  const setProblem = (text: string | null) => {
    setOwn(text);
    onProblem?.(text);
  };
  const sent = useRef<string | null>(null);

  useEffect(() => {
    if (focusKey) {
      input.current?.focus();
      input.current?.select();
    }
  }, [focusKey]);

  const commit = async () => {
    if (draft === null || draft === sent.current) return;
    if (draft.trim() === value) {
      setDraft(null);
      setProblem(null);
      return;
    }
    sent.current = draft;
    const why = whyNot(await onCommit(draft));
    if (why.length > 0) {
      setProblem(why.join(' '));
    } else {
      setProblem(null);
      setDraft(null);
    }
    sent.current = null;
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
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === 'Enter') {
              e.preventDefault();
              commit();
            } else if (e.key === 'Escape' && draft !== null) {
              e.stopPropagation();
              setDraft(null);
              setProblem(null);
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
          <p className={onProblem ? 'sr-only' : 'mt-0.5 text-sm font-bold text-madder'}>{problem}</p>
        ) : hint ? (
          <p className="text-sm text-soft">{hint}</p>
        ) : null}
      </div>
    </div>
  );
}
