// How a panel is made up before it is cut to size: in one piece, in patches, quilted.
import type { MadeUpView, PieceView } from '../../api/client';
import { useProject } from '../../project/ProjectContext';
import { OptionFields } from '../bag/options';
import { PiecePopover } from './PiecePopover';

export function MakeUp({ piece, madeUp }: { piece: PieceView; madeUp: MadeUpView }) {
  const { edit } = useProject();
  const summary = madeUp.summary ? (
    <span className="font-bold">made up: {madeUp.summary}</span>
  ) : madeUp.panel ? (
    'piece, band, quilt or line it'
  ) : (
    'back it'
  );
  return (
    <PiecePopover
      label={`Construction of ${piece.name}`}
      triggerLabel={`Construction of ${piece.name}: ${madeUp.summary || (madeUp.panel ? 'in one piece' : 'as the bag says')}`}
      summary={summary}
    >
      <OptionFields
        fields={madeUp.fields}
        focus={null}
        inline
        onSet={(field, value) => edit({ edit: 'make-up', piece: piece.id, field, value })}
      />
    </PiecePopover>
  );
}
