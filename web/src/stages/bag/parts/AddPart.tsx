// What can be put on the bag, drawn by where it goes.
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { Edit } from '../../../api/client';
import { useChoices } from '../../../api/useChoices';
import { type Outcome, whyNot } from '../../../project/outcome';
import { PartIcon } from './PartIcon';

interface Props {
  /** The wall that is looked at; a part that is put on a wall goes there. */
  wall: string | null;
  onAdd: (what: Edit) => Promise<Outcome>;
}

export function AddPart({ wall, onAdd }: Props) {
  const { part_kinds } = useChoices();
  const [open, setOpen] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const add = async (part: string) => {
    const onWall = part === 'pocket' || part === 'decoration' || part === 'tab' || part === 'zip';
    const why = whyNot(await onAdd({ edit: 'add-part', part, wall: onWall ? wall : null }));
    setProblem(why.join(' ') || null);
    if (why.length === 0) setOpen(false);
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="flex w-full items-center gap-2.5 rounded border-2 border-dashed border-[#9a8f79] px-2.5 py-1.5 text-left enabled:hover:border-indigo disabled:opacity-60 data-[state=open]:border-indigo">
        <PartIcon kind="add" />
        <span className="leading-tight">
          <span className="block font-bold">Add a part</span>
          <span className="block text-sm text-soft">pocket, strap, loop, own piece</span>
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 max-h-[70vh] w-[420px] max-w-[92vw] overflow-auto rounded border border-indigo bg-paper p-3 shadow-lg"
          sideOffset={6}
          collisionPadding={12}
          aria-label="Parts to add"
        >
          <ul className="flex flex-col gap-1.5">
            {part_kinds.map((kind) => (
              <li key={kind.key}>
                <button
                  type="button"
                  className="flex w-full items-center gap-3 rounded border border-ruled px-2.5 py-1.5 text-left hover:border-indigo hover:bg-tape/30"
                  onClick={() => add(kind.key)}
                >
                  <PartIcon kind={kind.key} />
                  <span className="leading-tight">
                    <span className="block font-bold">{kind.name}</span>
                    <span className="block text-sm text-soft">{kind.about}</span>
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {problem && (
            <p role="alert" className="mt-2 font-bold text-madder">
              {problem}
            </p>
          )}
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
