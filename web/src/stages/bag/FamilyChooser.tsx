// Which family of bag it is, chosen by its drawing.
import { useQuery } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, must } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { useProject } from '../../project/ProjectContext';

export function FamilyChooser() {
  const { view, edit, say } = useProject();
  const [open, setOpen] = useState(false);
  const families = useQuery({
    queryKey: ['families'],
    queryFn: () => must(api.GET('/api/families')),
    staleTime: Number.POSITIVE_INFINITY,
    enabled: open,
  });
  const choose = async (family: string) => {
    setOpen(false);
    if (family === view.bag.family) return;
    const problems = await edit({ edit: 'family', family });
    if (problems.length > 0) say(problems.map((p) => p.message).join(' '));
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
            Finished sizes and seams you have changed stay where both kinds have them; undo brings the old bag
            back.
          </p>
          {families.isPending && <p>Drawing them …</p>}
          {families.isError && <p role="alert">{families.error.message}</p>}
          <ul className="grid grid-cols-2 gap-2 sm:grid-cols-3">
            {families.data?.map((f) => (
              <li key={f.key}>
                <button
                  type="button"
                  aria-pressed={f.key === view.bag.family}
                  className="flex h-full w-full flex-col items-center gap-1 rounded border border-ruled p-2 text-center hover:border-indigo aria-pressed:border-indigo aria-pressed:bg-tape/40"
                  onClick={() => choose(f.key)}
                >
                  <Drawing drawing={f.drawing} label="" className="h-[88px] w-auto" />
                  <span className="font-bold">{f.name}</span>
                  <span className="text-sm leading-tight text-soft">{f.about}</span>
                </button>
              </li>
            ))}
          </ul>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
