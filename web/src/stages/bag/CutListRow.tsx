// One row of a cut list, and below it what its shape or its part asks for.
import { Trash2, Undo2 } from 'lucide-react';
import type { Measure, RowField, RowView } from '../../api/client';
import { useChoices } from '../../api/useChoices';
import { TextField } from '../../fields/TextField';
import { useProject } from '../../project/ProjectContext';

type Options = readonly (readonly [string, string])[];
const options = (list: { key: string; name: string }[]): Options => list.map((c) => [c.key, c.name] as const);

export function CutListRow({ row, at: i }: { row: RowView; at: number }) {
  const { view, edit } = useProject();
  const choices = useChoices();
  const [parts, shapes] = [options(choices.parts), options(choices.row_shapes)];
  const change = (row: number, field: RowField, value: string) => edit({ edit: 'row', row, field, value });
  const typed = (row: number, field: RowField, name: string, value: string) => (
    <TextField
      label={`${name} row ${row + 1}`}
      hideLabel
      value={value}
      onCommit={(v) => change(row, field, v)}
    />
  );
  const size = (row: number, field: RowField, name: string, of: Measure | null) => (
    <TextField
      label={`${name} row ${row + 1}`}
      hideLabel
      value={of?.text ?? 'WOF'}
      words={of?.words ?? 'width of cloth'}
      unit={view.system}
      onCommit={(v) => change(row, field, v)}
    />
  );
  const pick = (field: RowField, name: string, value: string, of: Options) => (
    <select
      className="field w-auto min-w-28"
      aria-label={`${name} row ${i + 1}`}
      value={value}
      onChange={(e) => change(i, field, e.target.value)}
    >
      {of.map(([key, text]) => (
        <option key={key} value={key}>
          {text}
        </option>
      ))}
    </select>
  );
  const folds: Options = row.folds.map((f) => [f.key, `${f.name}: ${f.note}`]);
  return (
    <>
      <tr className="border-t border-ruled align-top">
        <td data-name="how many" className="w-20 min-w-16 px-1.5 py-1">
          {typed(i, 'count', 'How many of', String(row.count))}
        </td>
        <td data-name="piece" className="min-w-40 px-1.5 py-1">
          {typed(i, 'name', 'Name of', row.name)}
        </td>
        <td data-name="part" className="px-1.5 py-1">
          {pick('part', 'Part of', row.part, parts)}
        </td>
        <td data-name="wide" className="w-28 min-w-24 px-1.5 py-1">
          {size(i, 'width', 'Width of', row.width ?? null)}
        </td>
        <td className="py-1">
          <button
            type="button"
            className="rounded p-1.5 text-soft hover:bg-calico"
            aria-label={`Swap width and height of row ${i + 1}`}
            title="Swap width and height"
            onClick={() => change(i, 'turn', '')}
          >
            <Undo2 size={16} />
          </button>
        </td>
        <td data-name="tall" className="w-28 min-w-24 px-1.5 py-1">
          {size(i, 'height', 'Height of', row.height)}
        </td>
        <td data-name="shape" className="px-1.5 py-1">
          <div className="flex gap-1">
            {pick('shape', 'Shape of', row.shape, shapes)}
            {row.corner && <div className="w-24">{size(i, 'corner', 'Corner of', row.corner)}</div>}
          </div>
        </td>
        <td data-name="seam to add" className="w-24 min-w-20 px-1.5 py-1">
          {size(i, 'seam', 'Seam to add to', row.seam)}
        </td>
        <td data-name="any way" className="px-1.5 py-2 text-center">
          <input
            type="checkbox"
            aria-label={`Row ${i + 1} may be turned`}
            checked={row.any_way}
            onChange={(e) => change(i, 'any_way', e.target.checked ? 'yes' : 'no')}
          />
        </td>
        <td className="py-1">
          <button
            type="button"
            className="rounded p-1.5 text-soft hover:bg-calico hover:text-madder"
            aria-label={`Remove row ${i + 1}`}
            title="Remove"
            onClick={() => change(i, 'remove', '')}
          >
            <Trash2 size={16} />
          </button>
        </td>
      </tr>
      {row.corners && (
        <tr>
          <td className="max-[900px]:hidden" />
          <td colSpan={9} className="px-1.5 pb-2">
            <TextField
              label={`Corners of row ${i + 1}: across × up, one after the other round the outline`}
              value={row.corners}
              unit={view.system}
              onCommit={(v) => change(i, 'corners', v)}
            />
          </td>
        </tr>
      )}
      {row.folds.length > 0 && (
        <tr>
          <td className="max-[900px]:hidden" />
          <td colSpan={9} className="px-1.5 pb-2">
            <div className="flex flex-wrap items-center gap-2 text-sm">
              <span className={row.fold ? 'text-soft' : 'font-bold text-madder'}>
                {row.fold ? 'Folded' : 'How is it folded?'}
              </span>
              {pick('fold', 'Fold of', row.fold, [['', 'not chosen yet'], ...folds])}
            </div>
          </td>
        </tr>
      )}
    </>
  );
}
