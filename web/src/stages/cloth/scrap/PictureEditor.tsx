// Scraps from a picture: four marks on the corners of something whose size is known, and the outlines are traced.
import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import type { Edit, SeenView } from '../../../api/client';
import { SelectField } from '../../../fields/SelectField';
import { LargeDialog } from '../../../frame/LargeDialog';
import { whyNot } from '../../../project/outcome';
import { useProject } from '../../../project/ProjectContext';
import { ChoosePicture, NoPicture, Typed } from '../picture/ChoosePicture';
import { Marked } from '../picture/Marked';
import { sendPicture } from '../picture/sendPicture';
import { usePicture } from '../picture/usePicture';

export function PictureEditor({ onClose }: { onClose: () => void }) {
  return (
    <LargeDialog
      title="Scraps from a picture"
      about="Lay them flat on a mat of another colour, right side up, threads up and down and a print standing up, and take the picture from above."
      closing="Close without laying anything down"
      onClose={onClose}
    >
      <Reading onClose={onClose} />
    </LargeDialog>
  );
}

function Reading({ onClose }: { onClose: () => void }) {
  const { view, edit } = useProject();
  const [width, setWidth] = useState('60 cm');
  const [height, setHeight] = useState('40 cm');
  const [tolerance, setTolerance] = useState('1.5 mm');
  const [cloth, setCloth] = useState(view.cloths[0]?.id ?? '');
  const [left, setLeft] = useState<number[]>([]);
  const { shot, marks, problem, setProblem, show, take, mark } = usePicture('/api/camera', () =>
    look.reset(),
  );
  const look = useMutation({
    mutationFn: () =>
      sendPicture<SeenView>(`/api/projects/${encodeURIComponent(view.id)}/picture`, shot, marks, {
        width,
        height,
        tolerance,
      }),
    onSuccess: () => {
      setProblem(null);
      setLeft([]);
    },
    onError: (error) => setProblem(error.message),
  });
  const found = look.data?.scraps ?? [];
  const taken = found.filter((_, k) => !left.includes(k));
  const layDown = async () => {
    const edits: Edit[] = taken.map((s) => ({ edit: 'draw-scrap', cloth, count: 1, draft: s.draft }));
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
          outlines={found.map((s) => s.on_picture)}
          left={left}
          onMarks={mark}
        />
      ) : (
        <NoPicture />
      )}
      <div className="flex flex-col gap-3">
        <ChoosePicture shows="scraps that were" onFile={show} onTake={take} />
        {shot && (
          <>
            <fieldset>
              <legend className="font-bold">What the four marks stand on</legend>
              <p className="text-sm text-soft">
                Put each mark on a corner of the mat, or of a rectangle drawn on it, and say how large that
                is.
              </p>
              <div className="mt-1 grid grid-cols-2 gap-2">
                <Typed label="Wide" value={width} onChange={setWidth} />
                <Typed label="Tall" value={height} onChange={setHeight} />
              </div>
            </fieldset>
            <Typed label="Outlines told to" value={tolerance} onChange={setTolerance} />
            <button type="button" className="btn" disabled={look.isPending} onClick={() => look.mutate()}>
              {look.isPending ? 'Reading the picture …' : 'Find the scraps'}
            </button>
          </>
        )}
        <div aria-live="polite">
          {problem && <p className="font-bold text-madder">{problem}</p>}
          {look.data && (
            <>
              <p>
                <strong>{found.length === 1 ? '1 scrap' : `${found.length} scraps`}</strong>, outlines to{' '}
                {look.data.tolerance}.
              </p>
              {(look.data.cut_off > 0 || look.data.rim) && (
                <p className="font-bold text-madder">
                  {look.data.cut_off > 0
                    ? `${look.data.cut_off} more reach over the rim of what is marked and are left out: a scrap over its edge, or a mark that is off its corner.`
                    : 'More than the mat is seen along the rim: a mark is off its corner.'}{' '}
                  Sizes are only right with all four marks in their corners.
                </p>
              )}
              <ul className="mt-1 flex flex-col gap-1">
                {found.map((s, k) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: they have no other name
                  <li key={k}>
                    <label className="flex items-start gap-2">
                      <input
                        type="checkbox"
                        className="mt-1"
                        checked={!left.includes(k)}
                        onChange={() =>
                          setLeft(left.includes(k) ? left.filter((n) => n !== k) : [...left, k])
                        }
                      />
                      <span>
                        <strong>{k + 1}</strong>: {s.size} over all, holds {s.holds ?? 'nothing'};{' '}
                        {s.draft.corners.length} corners
                        {(s.draft.flaws?.length ?? 0) > 0 && `, ${s.draft.flaws?.length} with a hole`}
                        {s.specks > 0 && `; ${s.specks} specks as of the mat are taken as print`}
                      </span>
                    </label>
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
        {look.data && (
          <div className="mt-auto flex flex-col gap-2 border-t border-ruled pt-2">
            <SelectField
              label="They are of"
              value={cloth}
              choices={view.cloths.map((c) => ({ key: c.id, name: c.name }))}
              onChoose={setCloth}
            />
            <button type="button" className="btn btn-act" disabled={taken.length === 0} onClick={layDown}>
              {taken.length === 1 ? 'Add the scrap' : `Lay ${taken.length} down`}
            </button>
          </div>
        )}
      </div>
    </div>
  );
}
