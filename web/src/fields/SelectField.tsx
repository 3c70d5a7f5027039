// One of a longer list, with its label.
import { useId } from 'react';

interface Props {
  label: string;
  value: string;
  choices: { key: string; name: string }[];
  onChoose: (value: string) => void;
  hideLabel?: boolean;
  /** What stands there while nothing is chosen: the field asks instead of assuming an answer. */
  ask?: string;
  problem?: string | null;
  className?: string;
}

export function SelectField({
  label,
  value,
  choices,
  onChoose,
  hideLabel,
  ask,
  problem,
  className = '',
}: Props) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className={hideLabel ? 'sr-only' : 'block text-sm text-soft'}>
        {label}
      </label>
      <select
        id={id}
        className={`field ${className}`}
        value={value}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${id}-problem` : undefined}
        onChange={(e) => onChoose(e.target.value)}
      >
        {ask !== undefined && (
          <option value="" disabled>
            {ask}
          </option>
        )}
        {choices.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
      {problem && (
        <p id={`${id}-problem`} aria-live="polite" className="text-sm font-bold text-madder">
          {problem}
        </p>
      )}
    </div>
  );
}
