// A field of a form that puts something into the cupboard, with what cannot stand beneath it.
import { useId } from 'react';

interface Props {
  label: string;
  placeholder: string;
  value: string;
  problem: string | null;
  /** Id of a list of usual answers. */
  list?: string | undefined;
  onChange: (value: string) => void;
}

export function Field({ label, placeholder, value, problem, list, onChange }: Props) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="text-sm text-soft">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={value}
        list={list}
        placeholder={placeholder}
        autoComplete="off"
        aria-invalid={problem !== null}
        aria-describedby={`${id}-note`}
        onChange={(e) => onChange(e.target.value)}
      />
      <p id={`${id}-note`} aria-live="polite" className="text-sm font-bold text-madder">
        {problem}
      </p>
    </div>
  );
}
