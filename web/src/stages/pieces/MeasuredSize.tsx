// A piece that is measured once it is made: what is still to be cut follows from it.
import type { MeasuredView, PieceView } from '../../api/client';
import { TextField } from '../../fields/TextField';
import { useProject } from '../../project/ProjectContext';

export function MeasuredSize({ piece, measured }: { piece: PieceView; measured: MeasuredView }) {
  const { view, edit } = useProject();
  const [width, height] = [measured.width.text, measured.height.text];
  const send = (width: string, height: string) => edit({ edit: 'measured', piece: piece.id, width, height });
  const side = (label: string, of: string, onCommit: (typed: string) => ReturnType<typeof send>) => (
    <TextField
      label={label}
      className="w-24"
      value={measured.is ? of : ''}
      placeholder={of}
      unit={view.system}
      onCommit={onCommit}
    />
  );
  return (
    <fieldset className="mt-2 max-w-72 rounded border border-ruled p-2">
      <legend className="px-1 text-sm text-soft">
        {measured.is ? 'measured, seams included' : 'measure and type the real size'}
      </legend>
      <div className="flex items-end gap-2">
        {side('Wide', width, (v) => send(v, v.trim() === '' ? '' : height))}
        {side('Tall', height, (v) => send(v.trim() === '' ? '' : width, v))}
        {measured.is && (
          <button type="button" className="btn" onClick={() => send('', '')}>
            Delete the measurement
          </button>
        )}
      </div>
    </fieldset>
  );
}
