// How a piece lies on its cloth, turned by hand: each way with what it costs.
import { useQuery } from '@tanstack/react-query';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import { api, must, type PieceView } from '../../api/client';
import { ChoiceField } from '../../fields/ChoiceField';
import { useProject } from '../../project/ProjectContext';

export function TurnPiece({ piece }: { piece: PieceView }) {
  const { view, edit } = useProject();
  const [open, setOpen] = useState(false);
  const turns = useQuery({
    queryKey: ['turns', view.id, view.revision, piece.id],
    queryFn: () =>
      must(
        api.GET('/api/projects/{id}/pieces/{piece}/turns', {
          params: { path: { id: view.id, piece: piece.id } },
        }),
      ),
    enabled: open,
    placeholderData: (before) => before,
  });
  if (!piece.may_turn || view.steps_done > 0) return <>{piece.grain}</>;
  const turned = piece.lies !== 'drafted';
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        className="rounded border border-dashed border-[#9a8f79] px-1.5 py-0.5 hover:border-indigo hover:bg-calico data-[state=open]:border-indigo"
        aria-label={`Direction of ${piece.name}: ${piece.grain}${turned ? ', turned by hand' : ''}`}
      >
        {piece.grain}
        {turned && <strong> (turned by hand)</strong>}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-30 max-h-[70vh] w-72 max-w-[92vw] overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg"
          side="right"
          sideOffset={6}
          collisionPadding={12}
          aria-label={`Direction of ${piece.name}`}
        >
          {turns.isError && <p role="alert">{turns.error.message}</p>}
          {turns.isPending && <p className="text-soft">trying each direction …</p>}
          {turns.data && (
            <ChoiceField
              label="Grain runs"
              value={piece.lies}
              onChoose={(lies) => {
                const turn = turns.data.find((t) => t.lies === lies);
                if (turn) edit({ edit: 'turn', piece: piece.id, lies: turn.lies });
              }}
              choices={turns.data.map((t) => ({
                value: t.lies,
                name: t.name,
                note: turns.isPlaceholderData ? '…' : `${t.difference}${t.glance ? ', quick answer' : ''}`,
              }))}
            />
          )}
          <Popover.Arrow className="fill-indigo" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
