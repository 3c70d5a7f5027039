// One of a few, all in sight.
import { RadioGroup } from 'radix-ui';
import { useId } from 'react';

export interface Choice {
  value: string;
  name: string;
  note?: string;
}

interface Props {
  label: string;
  value: string;
  choices: Choice[];
  onChoose: (value: string) => void;
  /** In a row of tabs rather than a list. */
  inline?: boolean;
}

export function ChoiceField({ label, value, choices, onChoose, inline }: Props) {
  const id = useId();
  return (
    <div>
      <p id={id} className="text-sm text-soft">
        {label}
      </p>
      <RadioGroup.Root
        value={value}
        onValueChange={onChoose}
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
            {c.note && <span className="block text-sm font-normal text-soft">{c.note}</span>}
          </RadioGroup.Item>
        ))}
      </RadioGroup.Root>
    </div>
  );
}
