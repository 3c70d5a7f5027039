// A computed number that opens its reason.
import { Popover } from 'radix-ui';
import type { BagField, DimensionView } from '../api/client';
import { useProject } from '../project/ProjectContext';
import { useFieldFocus } from '../project/useFieldFocus';
import { ReasonTape } from './ReasonTape';

export function DimensionButton({ dimension, name }: { dimension: DimensionView; name: string }) {
  const { view } = useProject();
  const goTo = useFieldFocus();
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          className="min-w-7 rounded-[2px] border-b-2 border-dotted border-soft px-0.5 font-bold hover:bg-tape/50"
          aria-label={`${name}, ${dimension.size.words}: why`}
        >
          {dimension.size.text}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 w-[34rem] max-w-[92vw] rounded border border-indigo bg-paper p-3 shadow-lg"
          sideOffset={6}
          collisionPadding={12}
        >
          <p className="mb-2 text-soft">{name}</p>
          <ReasonTape dimension={dimension} unit={view.system} onField={(field: BagField) => goTo(field)} />
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
