// One piece of the sheet: drawn to scale, with its sizes, marks, how it is made up, and its size once it is measured.
import type { PieceView } from '../../api/client';
import { asChoices, useChoices } from '../../api/useChoices';
import { DimensionButton } from '../../drawing/DimensionButton';
import { Drawing } from '../../drawing/Drawing';
import { ChoiceField } from '../../fields/ChoiceField';
import { PlanFields } from '../../project/PlanFields';
import { useProject } from '../../project/ProjectContext';
import { MakeUp } from './MakeUp';
import { MeasuredSize } from './MeasuredSize';
import { Patches } from './Patches';
import { PieceSize } from './PieceSize';
import { PlaceOnPrint } from './PlaceOnPrint';
import { TurnPiece } from './TurnPiece';

export function PieceCard({ piece: p }: { piece: PieceView }) {
  const { view, edit } = useProject();
  const { joins } = useChoices();
  return (
    <li className="sheet p-3">
      <h2 className="flex items-baseline gap-2 text-lg leading-tight">
        {p.name} <span className="font-sans text-base text-soft">× {p.count}</span>
      </h2>
      <Drawing
        drawing={p.drawing}
        label={`${p.name}, ${p.width.size.words} wide, ${p.height.size.words} tall`}
        className="my-2"
      />
      <p>
        <PieceSize piece={p} />
      </p>
      {p.corner_across && p.corner_up && (
        <p className="text-sm">
          corners <DimensionButton dimension={p.corner_across} name="corner, in from the side" /> ×{' '}
          <DimensionButton dimension={p.corner_up} name="corner, up from the base" /> cut out
        </p>
      )}
      {p.figures && !p.corner_across && <p className="max-w-72 text-sm">{p.figures}</p>}
      <p className="max-w-72 text-sm leading-7 text-soft">
        <TurnPiece piece={p} /> · {p.print}
        <PlaceOnPrint piece={p} />
      </p>
      <PlanFields>
        {(p.may_be_on_edge || p.on_edge) && (
          <ChoiceField
            label="On a kept edge of a scrap"
            inline
            value={p.on_edge ?? ''}
            onChoose={(edge) =>
              edit({
                edit: 'on-kept-edge',
                piece: p.id,
                edge: edge === 'top' || edge === 'base' ? edge : null,
              })
            }
            choices={[
              { value: '', name: 'no' },
              { value: 'top', name: 'its top' },
              { value: 'base', name: 'its base' },
            ]}
          />
        )}
      </PlanFields>
      <PlanFields>{p.made_up && <MakeUp piece={p} madeUp={p.made_up} />}</PlanFields>
      <PlanFields>{p.patches && <Patches piece={p} patches={p.patches} />}</PlanFields>
      {p.marks.length > 0 && (
        <ul className="mt-1 max-w-72 border-t border-ruled pt-1 text-sm">
          {p.marks.map((m) => (
            <li key={m} className="text-chalk">
              {m}
            </li>
          ))}
        </ul>
      )}
      {p.when && <p className="max-w-72 text-sm font-bold">{p.when}</p>}
      <PlanFields>
        {p.joined && (
          <ChoiceField
            label="Joined"
            inline
            value={view.choices.join}
            onChoose={(value) => edit({ edit: 'lay', field: 'join', value })}
            choices={asChoices(joins)}
          />
        )}
      </PlanFields>
      {p.measured && <MeasuredSize piece={p} measured={p.measured} />}
      {p.note && <p className="max-w-72 text-sm">{p.note}</p>}
    </li>
  );
}
