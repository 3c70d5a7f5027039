// The cloths of several bands in order, one choice each.
import { useId, useState } from 'react';
import { type Outcome, whyNot } from '../project/outcome';
import { SelectField } from './SelectField';

interface Props {
  label: string;
  /** Keys in order; fewer than there are bands where nothing was said. */
  value: string[];
  bands: number;
  choices: { key: string; name: string }[];
  onCommit: (value: string) => Promise<Outcome>;
}

export function ClothsField({ label, value, bands, choices, onCommit }: Props) {
  const id = useId();
  const [problem, setProblem] = useState<string | null>(null);
  const first = choices[0]?.key ?? '';
  const choose = async (at: number, key: string) => {
    const all = Array.from({ length: bands }, (_, n) => (n === at ? key : (value[n] ?? first)));
    setProblem(whyNot(await onCommit(all.join(', '))).join(' ') || null);
  };
  const places = Array.from({ length: bands }, (_, n) => `${n + 1}`);
  return (
    <fieldset aria-labelledby={id}>
      <p id={id} className="text-sm text-soft">
        {label}
      </p>
      <div className="mt-0.5 grid grid-cols-2 gap-1.5">
        {places.map((place, n) => (
          <SelectField
            key={place}
            label={`band ${place}`}
            value={value[n] ?? ''}
            choices={value[n] ? choices : [{ key: '', name: 'by turns' }, ...choices]}
            onChoose={(key) => key && choose(n, key)}
          />
        ))}
      </div>
      {problem && (
        <p role="alert" className="text-sm font-bold text-madder">
          {problem}
        </p>
      )}
    </fieldset>
  );
}
