// Which family of bag it is, chosen by its drawing.
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { whyNot } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';
import { Kinds } from './Kinds';

export function FamilyChooser() {
  const { view, edit, notify } = useProject();
  const [open, setOpen] = useState(false);
  const choose = async (family: string) => {
    setOpen(false);
    if (family === view.bag.family) return;
    const why = whyNot(await edit({ edit: 'family', family }));
    if (why.length > 0) notify(why.join(' '));
  };
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <button type="button" className="btn">
          Another kind of bag
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 max-h-[80vh] w-[640px] max-w-[94vw] overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg"
          sideOffset={6}
          collisionPadding={12}
          aria-label="Kinds of bag"
        >
          <p className="mb-2 text-sm text-soft">
            Finished sizes and seams that both kinds have stay as you set them. Undo brings the old bag back.
          </p>
          <Kinds chosen={view.bag.family} onChoose={choose} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
