// The print of a cloth from a picture: four marks on what is seen of it, its size said, and the cloth is drawn so.
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { ClothView, Edit, Schemas } from '../../../api/client';
import { asChoices, useChoices } from '../../../api/useChoices';
import { ChoiceField } from '../../../fields/ChoiceField';
import { LargeDialog } from '../../../frame/LargeDialog';
import { whyNot } from '../../../project/outcome';
import { useProject } from '../../../project/ProjectContext';
import { ChoosePicture, NoPicture, Typed } from './ChoosePicture';
import { Marked } from './Marked';
import { sendPicture } from './sendPicture';
import { usePicture } from './usePicture';

type Taken = Schemas['SwatchTaken'];

export function PrintEditor({ cloth, onClose }: { cloth: ClothView; onClose: () => void }) {
  return (
    <LargeDialog
      title={`${cloth.name} from a picture`}
      about="Lay the cloth flat with the print standing up, and take the picture from above. One pattern repeat with a motif in the middle works best, because Bofta repeats the picture across the cloth."
      closing="Close without changing the cloth"
      onClose={onClose}
    >
      <Reading cloth={cloth} onClose={onClose} />
    </LargeDialog>
  );
}

function Reading({ cloth, onClose }: { cloth: ClothView; onClose: () => void }) {
  const { view, edit } = useProject();
  const { prints } = useChoices();
  const unit = view.system;
  const [repeats, setRepeats] = useState('yes');
  const [width, setWidth] = useState(cloth.repeat_wide ? `${cloth.repeat_wide.text} ${unit}` : '');
  const [height, setHeight] = useState(cloth.repeat ? `${cloth.repeat.text} ${unit}` : '');
  const [print, setPrint] = useState(cloth.print);
  const { shot, marks, problem, setProblem, show, take, mark } = usePicture('/api/camera/cloth', () =>
    look.reset(),
  );
  const one_repeat = repeats === 'yes';
  const look = useMutation({
    mutationFn: () =>
      sendPicture<Taken>('/api/swatches', shot, marks, {
        width,
        height,
        system: unit,
        one_repeat: String(one_repeat),
      }),
    onSuccess: () => setProblem(null),
    onError: (error) => setProblem(error.message),
  });
  const taken = look.data;
  const again = (set: (value: string) => void) => (value: string) => {
    set(value);
    look.reset();
  };
  const draw = async () => {
    if (!taken) return;
    const { picture, ground, figure } = taken;
    const set = (field: 'print' | 'repeat' | 'repeat_wide', value: string): Edit => ({
      edit: 'cloth',
      cloth: cloth.id,
      field,
      value,
    });
    const edits: Edit[] = [
      { edit: 'cloth-look', cloth: cloth.id, look: { ...cloth.look, ground, figure, picture } },
    ];
    // What is as it was is not said again: once cutting has begun nothing of the plan can change.
    if (print !== cloth.print) edits.push(set('print', print));
    if (one_repeat) edits.push(set('repeat', height), set('repeat_wide', width));
    const why = whyNot(await edit(...edits))[0];
    if (why) setProblem(why);
    else onClose();
  };
  return (
    <div className="mt-2 grid gap-4 md:grid-cols-[minmax(0,1fr)_320px]">
      {shot ? (
        <Marked
          url={shot.url}
          wide={shot.wide}
          tall={shot.tall}
          marks={marks}
          outlines={[]}
          left={[]}
          onMarks={mark}
        />
      ) : (
        <NoPicture />
      )}
      <div className="flex flex-col gap-3">
        <ChoosePicture shows="printed cloths that were" onFile={show} onTake={take} />
        {shot && (
          <>
            <ChoiceField
              label="The four marks stand on"
              inline
              value={repeats}
              onChoose={again(setRepeats)}
              choices={[
                { value: 'yes', name: 'one repeat' },
                { value: 'no', name: 'any part of it' },
              ]}
            />
            <p className="text-sm text-soft">
              {one_repeat
                ? 'Measure from one place of the print to the same place of the next repeat, both ways, with the motif in the middle.'
                : 'Bofta repeats it like tiles. You will see where they meet.'}
            </p>
            <div className="grid grid-cols-2 gap-2">
              <Typed label="Wide" value={width} onChange={again(setWidth)} />
              <Typed label="Tall" value={height} onChange={again(setHeight)} />
            </div>
            <ChoiceField
              label="The print"
              inline
              value={print}
              onChoose={setPrint}
              choices={asChoices(prints)}
            />
            <button type="button" className="btn" disabled={look.isPending} onClick={() => look.mutate()}>
              {look.isPending ? 'Reading the picture …' : 'Show the result'}
            </button>
          </>
        )}
        <div aria-live="polite">
          {problem && <p className="font-bold text-madder">{problem}</p>}
          {taken && (
            <>
              <div
                role="img"
                aria-label="The print as Bofta draws it, repeated"
                className="h-44 rounded-sm border border-ruled"
                style={{
                  backgroundImage: `url(/api/pictures/${taken.picture.key})`,
                  backgroundSize: `${tile(taken)} auto`,
                  backgroundPosition: 'center',
                }}
              />
              <p className="mt-1 flex items-center gap-2 text-soft">
                Colours
                {[taken.ground, taken.figure].map((colour) => (
                  <span
                    key={colour}
                    role="img"
                    aria-label={colour}
                    className="inline-block h-5 w-8 rounded-sm border border-ruled"
                    style={{ backgroundColor: colour }}
                  />
                ))}
              </p>
            </>
          )}
        </div>
        {taken && (
          <button type="button" className="btn btn-act mt-auto" onClick={draw}>
            Draw {cloth.name} so
          </button>
        )}
      </div>
    </div>
  );
}

/** Two and a half of it side by side where it is wide, fewer where it is tall. */
const tile = ({ picture }: Taken) => `${Math.min(120, Math.round((120 * picture.width) / picture.height))}px`;
