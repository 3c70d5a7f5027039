// One cloth: its print, what is measured of it, how the shop sells it, the parts cut from it.
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ApiError, api, type ClothField, type ClothView, type Look, must } from '../../api/client';
import { asChoices, useChoices } from '../../api/useChoices';
import { Drawing } from '../../drawing/Drawing';
import { ChoiceField } from '../../fields/ChoiceField';
import { SelectField } from '../../fields/SelectField';
import { TextField } from '../../fields/TextField';
import { whyNot } from '../../project/outcome';
import { PlanFields } from '../../project/PlanFields';
import { useProject } from '../../project/ProjectContext';
import { InCupboard } from './InCupboard';
import { PrintEditor } from './picture/PrintEditor';

export function ClothCard({ cloth }: { cloth: ClothView }) {
  const { view, edit, notify } = useProject();
  const queries = useQueryClient();
  const { materials, patterns, prints, print_up } = useChoices();
  const [kept, setKept] = useState(false);
  const [pictured, setPictured] = useState(false);
  const set = (field: ClothField) => (value: string) =>
    edit({ edit: 'cloth', cloth: cloth.id, field, value });
  const look = (change: Partial<Look>) =>
    edit({ edit: 'cloth-look', cloth: cloth.id, look: { ...cloth.look, ...change } });
  const unit = view.system;
  const per = unit === 'in' ? 'a yard' : 'a metre';
  const names = [
    ...view.parts.filter((p) => p.cloths.includes(cloth.id)).map((p) => p.name),
    ...view.parts.flatMap((p) => p.kinds.filter((k) => k.cloth === cloth.id)).map((k) => k.name),
  ];
  const match = async () => {
    const why = whyNot(await edit({ edit: 'match-print', cloth: cloth.id }))[0];
    if (why) notify(why);
  };
  const keep = async () => {
    const path = { id: view.id, cloth: cloth.id };
    try {
      const { entered } = await must(
        api.POST('/api/projects/{id}/cloths/{cloth}/keep', { params: { path } }),
      );
      if (entered.length > 0) notify(`In the cupboard: ${entered.join('; ')}.`);
      queries.invalidateQueries({ queryKey: ['cupboard'] });
      setKept(true);
    } catch (error) {
      if (error instanceof ApiError) notify(error.message);
    }
  };
  return (
    <section aria-label={cloth.name} className="sheet flex h-full flex-col p-3">
      <div className="flex gap-3">
        <Drawing
          drawing={cloth.swatch}
          label={`${cloth.name}: ${cloth.look.picture ? 'its picture' : cloth.look.pattern}`}
          className="h-[84px] w-[132px] shrink-0 rounded-sm border border-ruled"
        />
        <div className="min-w-0 flex-1">
          <TextField
            label="Name of the cloth"
            hideLabel
            value={cloth.name}
            onCommit={set('name')}
            inputClassName="border-transparent px-1 font-heading text-lg hover:border-ruled"
          />
          <div className="flex flex-wrap items-center gap-x-2 px-1 text-soft">
            <PlanFields>
              <SelectField
                label={`Material of ${cloth.name}`}
                hideLabel
                value={cloth.material}
                choices={materials}
                onChoose={set('material')}
                className="border-transparent py-0 pl-0 text-soft hover:border-ruled"
              />
            </PlanFields>
            <span>
              {cloth.usable.text} {unit} usable
            </span>
          </div>
          <p className="px-1">
            {names.length === 0 ? <span className="text-soft">not used</span> : names.join(', ')}
          </p>
        </div>
      </div>
      <div className="mt-3 grid grid-cols-2 gap-x-3 gap-y-2">
        <PlanFields>
          <TextField
            label="Wide"
            value={cloth.width.text}
            words={cloth.width.words}
            unit={unit}
            onCommit={set('width')}
          />
        </PlanFields>
        <TextField
          label={`Price ${per}`}
          value={cloth.price ?? ''}
          placeholder="not known"
          onCommit={set('price')}
        />
      </div>
      {cloth.taken_off.length > 0 && <p className="mt-1 text-sm text-soft">{cloth.taken_off.join(' ')}</p>}
      <PlanFields>
        <WhatIsThere cloth={cloth} />
        {cloth.left_of && (
          <p className="mt-1 text-sm text-soft">
            What {cloth.left_of} leaves, as planned when you added it. Press “From the cupboard” to check
            again.
          </p>
        )}
        <InCupboard cloth={cloth} />
      </PlanFields>
      <div className="mt-2">
        <PlanFields>
          <ChoiceField
            label="The print"
            inline
            value={cloth.print}
            onChoose={set('print')}
            choices={asChoices(prints)}
          />
        </PlanFields>
      </div>
      <details className="mt-2">
        <summary className="font-bold text-chalk hover:underline">Look, selvedge, washing, shop</summary>
        <div className="mt-2 flex flex-col gap-2">
          <div className="flex flex-wrap items-end gap-3">
            {cloth.look.picture ? (
              <button type="button" className="btn" onClick={() => look({ picture: undefined })}>
                Remove the picture
              </button>
            ) : (
              <SelectField
                label="Pattern"
                value={cloth.look.pattern}
                choices={patterns}
                onChoose={(pattern) => look({ pattern: pattern as Look['pattern'] })}
              />
            )}
            {(['ground', 'figure'] as const).map((which) => (
              <label key={which} className="text-sm text-soft">
                {which === 'ground' ? 'Ground' : 'Figures'}
                <input
                  type="color"
                  className="block h-[34px] w-14 rounded border border-[#9a8f79] bg-paper p-0.5"
                  defaultValue={cloth.look[which]}
                  key={cloth.look[which]}
                  onBlur={(e) => e.target.value !== cloth.look[which] && look({ [which]: e.target.value })}
                />
              </label>
            ))}
            <button type="button" className="btn" onClick={() => setPictured(true)}>
              {cloth.look.picture ? 'Another picture' : 'From a picture'}
            </button>
          </div>
          {pictured && <PrintEditor cloth={cloth} onClose={() => setPictured(false)} />}
          <PlanFields>
            <div className="grid grid-cols-2 gap-x-3 gap-y-2">
              <TextField
                label="Pattern repeat, height"
                value={cloth.repeat?.text ?? ''}
                words={cloth.repeat?.words}
                unit={unit}
                placeholder="not measured"
                onCommit={set('repeat')}
              />
              <TextField
                label="Pattern repeat, width"
                value={cloth.repeat_wide?.text ?? ''}
                words={cloth.repeat_wide?.words}
                unit={unit}
                placeholder="not measured"
                onCommit={set('repeat_wide')}
              />
              {(cloth.repeat_wide || cloth.look.pattern === 'border') && (
                <TextField
                  label={
                    cloth.look.pattern === 'border'
                      ? 'Edge to the middle of the border'
                      : 'Edge to first motif'
                  }
                  value={cloth.motif_from?.text ?? ''}
                  words={cloth.motif_from?.words}
                  unit={unit}
                  placeholder="not measured"
                  onCommit={set('motif_from')}
                />
              )}
            </div>
            {cloth.repeat && cloth.repeat_wide && (
              <ChoiceField
                label="Pattern repeat, next column"
                inline
                value={cloth.half_drop ? 'yes' : 'no'}
                onChoose={set('half_drop')}
                choices={[
                  { value: 'no', name: 'level' },
                  { value: 'yes', name: 'half-drop' },
                ]}
              />
            )}
            {(cloth.repeat || cloth.repeat_wide) && (
              <p className="text-sm text-soft">
                Now you can place each piece on the print. Open the piece on Pieces.
              </p>
            )}
            {cloth.repeat && (
              <button type="button" className="btn self-start" onClick={match}>
                Match the print at the side seams
              </button>
            )}
            <ChoiceField
              label="Nap"
              inline
              value={cloth.nap ? 'yes' : 'no'}
              onChoose={set('nap')}
              choices={[
                { value: 'no', name: 'none' },
                { value: 'yes', name: 'all pieces the same way up' },
              ]}
            />
            <ChoiceField
              label="Cut it"
              inline
              value={cloth.folded ? 'yes' : 'no'}
              onChoose={set('folded')}
              choices={[
                { value: 'no', name: 'single' },
                { value: 'yes', name: 'on the fold, two at once' },
              ]}
            />
            {cloth.print !== 'all-over' && (
              <ChoiceField
                label="Print stands up towards"
                inline
                value={cloth.up}
                onChoose={set('up')}
                choices={asChoices(print_up)}
              />
            )}
            <div className="grid grid-cols-2 gap-x-3 gap-y-2">
              <TextField
                label="Selvedge, each side"
                value={cloth.selvedge.text}
                words={cloth.selvedge.words}
                unit={unit}
                onCommit={set('selvedge')}
              />
              <TextField
                label="Allow for squaring an end"
                value={cloth.trim.text}
                words={cloth.trim.words}
                unit={unit}
                onCommit={set('trim')}
              />
              <TextField
                label="Shop cuts in steps of"
                value={cloth.step?.text ?? ''}
                words={cloth.step?.words}
                unit={unit}
                placeholder="any length"
                onCommit={set('step')}
              />
              <TextField
                label="At least"
                value={cloth.min.text}
                words={cloth.min.words}
                unit={unit}
                onCommit={set('min')}
              />
            </div>
            <p className="text-sm text-soft">Sold {cloth.shop}.</p>
            <ChoiceField
              label={`Washed before cutting: ${cloth.shrinks}`}
              inline
              value={cloth.wash_first ? 'yes' : 'no'}
              onChoose={set('wash_first')}
              choices={[
                { value: 'no', name: 'no, or already' },
                { value: 'yes', name: 'yes, allow for it' },
              ]}
            />
            <fieldset>
              <legend className="text-sm text-soft">
                Shrinkage test: size of the test square before and after washing
              </legend>
              <div className="mt-1 grid grid-cols-3 gap-x-2">
                <TextField
                  label="Before washing, each side"
                  value={cloth.test_square?.text ?? ''}
                  words={cloth.test_square?.words}
                  unit={unit}
                  placeholder={unit === 'in' ? '10' : '25'}
                  onCommit={set('test_square')}
                />
                <TextField
                  label="After washing, lengthwise"
                  value={cloth.test_along?.text ?? ''}
                  words={cloth.test_along?.words}
                  unit={unit}
                  placeholder="as usual"
                  onCommit={set('test_along')}
                />
                <TextField
                  label="After washing, crosswise"
                  value={cloth.test_across?.text ?? ''}
                  words={cloth.test_across?.words}
                  unit={unit}
                  placeholder="as usual"
                  onCommit={set('test_across')}
                />
              </div>
            </fieldset>
            <TextField
              label={unit === 'in' ? 'Weight of a square yard' : 'Weight of a square metre'}
              value={cloth.weight}
              placeholder="not known"
              onCommit={set('weight')}
            />
          </PlanFields>
        </div>
      </details>
      <div className="mt-auto flex gap-2 pt-3">
        <button type="button" className="btn" onClick={keep}>
          {kept ? 'Kept in the cupboard' : 'Keep in the cupboard'}
        </button>
        <PlanFields>
          <button
            type="button"
            className="btn"
            onClick={() => edit({ edit: 'remove-cloth', cloth: cloth.id })}
            aria-label={`Remove ${cloth.name} from this project`}
          >
            Remove
          </button>
        </PlanFields>
      </div>
    </section>
  );
}

/** What of it is there, said as people say it; what that comes to lies on the table. */
function WhatIsThere({ cloth }: { cloth: ClothView }) {
  const { view, edit } = useProject();
  const set = (field: ClothField) => (value: string) =>
    edit({ edit: 'cloth', cloth: cloth.id, field, value });
  return (
    <div className="mt-2">
      <TextField
        label="I have"
        value={cloth.at_hand}
        placeholder={`none yet, such as: 2 fat quarters, half a ${view.system === 'in' ? 'yard, 18 x 22' : 'metre, 40 x 60'} …`}
        hint={cloth.at_hand ? 'Give the length along the selvedge first, then the width.' : undefined}
        onCommit={set('at_hand')}
      />
      {cloth.at_hand !== '' && (
        <ChoiceField
          label="If it runs short"
          inline
          value={cloth.buy_more ? 'yes' : 'no'}
          onChoose={set('buy_more')}
          choices={[
            { value: 'no', name: 'use only this' },
            { value: 'yes', name: 'buy the rest' },
          ]}
        />
      )}
    </div>
  );
}
