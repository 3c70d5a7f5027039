// Scraps from a picture: four marks on the corners of something whose size is known, and the outlines are traced.
import { useMutation } from '@tanstack/react-query';
import { Camera, ImageUp } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { ApiErrorBody, Edit, SeenView } from '../../../api/client';
import { SelectField } from '../../../fields/SelectField';
import { LargeDialog } from '../../../frame/LargeDialog';
import { whyNot } from '../../../project/outcome';
import { useProject } from '../../../project/ProjectContext';
import { type Mark, Marked } from './Marked';

interface Shot {
  file: Blob;
  url: string;
  wide: number;
  tall: number;
}

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

/** Marks to begin with: a little inside the corners of the picture. */
const begin = ({ wide, tall }: { wide: number; tall: number }): Mark[] =>
  [
    [0.06, 0.06],
    [0.94, 0.06],
    [0.94, 0.94],
    [0.06, 0.94],
  ].map(([x, y]) => ({ x: (x ?? 0) * wide, y: (y ?? 0) * tall }));

function Reading({ onClose }: { onClose: () => void }) {
  const { view, edit } = useProject();
  const [shot, setShot] = useState<Shot | null>(null);
  const [marks, setMarks] = useState<Mark[]>([]);
  const [width, setWidth] = useState('60 cm');
  const [height, setHeight] = useState('40 cm');
  const [tolerance, setTolerance] = useState('1.5 mm');
  const [cloth, setCloth] = useState(view.cloths[0]?.id ?? '');
  const [left, setLeft] = useState<number[]>([]);
  const [number, setNumber] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);
  const look = useMutation({
    mutationFn: () => seen(view.id, shot, marks, { width, height, tolerance }),
    onSuccess: () => {
      setProblem(null);
      setLeft([]);
    },
    onError: (error) => setProblem(error.message),
  });
  const { reset } = look;

  // A picture's address lasts as long as it is shown.
  useEffect(() => () => void (shot && URL.revokeObjectURL(shot.url)), [shot]);

  const show = async (file: Blob) => {
    reset();
    setProblem(null);
    const url = URL.createObjectURL(file);
    const picture = new Image();
    picture.src = url;
    try {
      await picture.decode();
    } catch {
      URL.revokeObjectURL(url);
      setShot(null);
      setProblem('This is no picture that can be shown: it takes JPEG, PNG and WebP.');
      return;
    }
    const size = { wide: picture.naturalWidth, tall: picture.naturalHeight };
    setShot({ file, url, ...size });
    setMarks(begin(size));
  };
  const take = async () => {
    try {
      const answer = await fetch(`/api/camera/${number + 1}`);
      if (!answer.ok) throw new Error('The camera does not answer.');
      setNumber(number + 1);
      await show(await answer.blob());
    } catch {
      setProblem('The camera does not answer. Try again, or choose a picture.');
    }
  };
  const change = (next: Mark[]) => {
    setMarks(next);
    reset();
  };

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
          onMarks={change}
        />
      ) : (
        <div className="flex aspect-[3/2] items-center justify-center rounded border-2 border-dashed border-[#b3a68d] bg-[#fbf7ec] p-6 text-center text-soft">
          No picture yet: choose one, or take one with the camera over the table.
        </div>
      )}
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap gap-2">
          <label className="btn focus-within:outline-2 focus-within:outline-chalk">
            <ImageUp size={17} /> Choose a picture
            <input
              type="file"
              className="sr-only"
              accept="image/jpeg,image/png,image/webp"
              onChange={(e) => {
                const file = e.target.files?.[0];
                e.target.value = '';
                if (file) void show(file);
              }}
            />
          </label>
          <button type="button" className="btn" onClick={take}>
            <Camera size={17} /> Take a picture
          </button>
          <p className="text-sm text-soft">
            The camera here is a stand-in: it shows scraps that were made up.
          </p>
        </div>
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
              {look.isPending ? 'Looking …' : 'Find the scraps'}
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
              {taken.length === 1 ? 'Lay it down' : `Lay ${taken.length} down`}
            </button>
          </div>
        )}
      </div>
    </div>
  );
}

function Typed({ label, value, onChange }: { label: string; value: string; onChange: (v: string) => void }) {
  return (
    <label className="text-sm text-soft">
      {label}
      <input className="field" value={value} autoComplete="off" onChange={(e) => onChange(e.target.value)} />
    </label>
  );
}

/** What the server sees on the picture. */
async function seen(
  project: string,
  shot: Shot | null,
  marks: Mark[],
  known: { width: string; height: string; tolerance: string },
): Promise<SeenView> {
  if (!shot) throw new Error('There is no picture yet.');
  const query = new URLSearchParams({ marks: marks.map((m) => `${m.x},${m.y}`).join(' '), ...known });
  let answer: Response;
  try {
    const headers = { 'content-type': 'application/octet-stream' };
    const path = `/api/projects/${encodeURIComponent(project)}/picture?${query}`;
    answer = await fetch(path, { method: 'POST', body: shot.file, headers });
  } catch {
    throw new Error(
      'The picture could not be sent: the program does not answer. Start it again and look once more.',
    );
  }
  const body: SeenView | ApiErrorBody = await answer.json();
  if ('message' in body) throw new Error(body.message);
  return body;
}
