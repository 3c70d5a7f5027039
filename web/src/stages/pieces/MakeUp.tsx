// How a panel is made up before it is cut to size: in one piece, in patches, quilted.
import { Popover } from 'radix-ui';
import type { MadeUpView, PieceView } from '../../api/client';
import { useProject } from '../../project/ProjectContext';
import { OptionFields } from '../bag/options';

export function MakeUp({ piece, madeUp }: { piece: PieceView; madeUp: MadeUpView }) {
  const { edit } = useProject();
  return (
    <Popover.Root>
      <Popover.Trigger
        className="mt-1 rounded border border-dashed border-[#9a8f79] px-2 py-0.5 text-sm hover:border-indigo hover:bg-calico data-[state=open]:border-indigo"
        aria-label={`How ${piece.name} is made up: ${madeUp.summary || (madeUp.panel ? 'in one piece' : 'as the bag says')}`}
      >
        {madeUp.summary ? (
          <span className="font-bold">made up: {madeUp.summary}</span>
        ) : madeUp.panel ? (
          'piece, band, quilt or back it'
        ) : (
          'back it'
        )}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 max-h-[70vh] w-80 max-w-[92vw] overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg"
          side="right"
          sideOffset={6}
          collisionPadding={12}
          aria-label={`How ${piece.name} is made up`}
        >
          <OptionFields
            fields={madeUp.fields}
            focus={null}
            inline
            onSet={(field, value) => edit({ edit: 'make-up', piece: piece.id, field, value })}
          />
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
