// One of a few, all in sight.
import { RadioGroup } from 'radix-ui';
import { useId, useState } from 'react';
import { type Outcome, whyNot } from '../project/outcome';

export interface Choice {
  value: string;
  name: string;
  note?: string;
}

interface Props {
  label: string;
  value: string;
  choices: Choice[];
  /** What becomes of it is shown here when it is refused. */
  onChoose: (value: string) => unknown;
  /** In a row of tabs rather than a list; only what stands tells its note, below them. */
  inline?: boolean;
}

export function ChoiceField({ label, value, choices, onChoose, inline }: Props) {
  const id = useId();
  const [problem, setProblem] = useState<string | null>(null);
  const choose = async (chosen: string) => {
    const outcome = (await onChoose(chosen)) as Outcome | undefined;
    setProblem(outcome?.is ? whyNot(outcome).join(' ') || null : null);
  };
  return (
    <div>
      <p id={id} className="text-sm text-soft">
        {label}
      </p>
      <RadioGroup.Root
        value={value}
        onValueChange={choose}
        aria-labelledby={id}
        className={inline ? 'mt-0.5 flex flex-wrap gap-1' : 'mt-0.5 flex flex-col gap-1'}
      >
        {choices.map((c) => (
          <RadioGroup.Item
            key={c.value}
            value={c.value}
            className="rounded border border-[#9a8f79] bg-paper px-2.5 py-1 text-left disabled:border-dotted disabled:bg-transparent enabled:hover:border-indigo data-[state=checked]:border-indigo data-[state=checked]:bg-tape/60 data-[state=checked]:font-bold"
          >
            {c.name}
            {!inline && c.note && <span className="block text-sm font-normal text-soft">{c.note}</span>}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
      {inline && <p className="text-sm text-soft">{choices.find((c) => c.value === value)?.note}</p>}
      {problem && (
        <p role="alert" className="mt-0.5 text-sm font-bold text-madder">
          {problem}
        </p>
      )}
    </div>
  );
}
