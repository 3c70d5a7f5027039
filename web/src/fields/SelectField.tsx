// One of a longer list, with its label.
import { useId } from 'react';

interface Props {
  label: string;
  value: string;
  choices: { key: string; name: string }[];
  onChoose: (value: string) => void;
  hideLabel?: boolean;
  className?: string;
}

export function SelectField({ label, value, choices, onChoose, hideLabel, className = '' }: Props) {
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
        onChange={(e) => onChoose(e.target.value)}
      >
        {choices.map(({ key, name }) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </div>
  );
}
