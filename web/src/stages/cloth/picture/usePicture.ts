// A picture that was chosen or taken, and four marks on it.
import { useEffect, useState } from 'react';
import type { Mark } from './Marked';

export interface Shot {
  file: Blob;
  url: string;
  wide: number;
  tall: number;
}

/** Marks to begin with: a little inside the corners of the picture. */
const begin = ({ wide, tall }: Shot): Mark[] =>
  [
    [0.06, 0.06],
    [0.94, 0.06],
    [0.94, 0.94],
    [0.06, 0.94],
  ].map(([x, y]) => ({ x: (x ?? 0) * wide, y: (y ?? 0) * tall }));

/** `camera` is where the stand-in for a camera gives its pictures, by number; `onChange` hears of every other picture or mark. */
export function usePicture(camera: string, onChange: () => void) {
  const [shot, setShot] = useState<Shot | null>(null);
  const [marks, setMarks] = useState<Mark[]>([]);
  const [number, setNumber] = useState(0);
  const [problem, setProblem] = useState<string | null>(null);

  // A picture's address lasts as long as it is shown.
  useEffect(() => () => void (shot && URL.revokeObjectURL(shot.url)), [shot]);

  const show = async (file: Blob) => {
    onChange();
    setProblem(null);
    const url = URL.createObjectURL(file);
    const picture = new Image();
    picture.src = url;
    try {
      await picture.decode();
    } catch {
      URL.revokeObjectURL(url);
      setShot(null);
      setProblem('Bofta cannot read this picture. Use JPEG, PNG or WebP.');
      return;
    }
    const next = { file, url, wide: picture.naturalWidth, tall: picture.naturalHeight };
    setShot(next);
    setMarks(begin(next));
  };
  const take = async () => {
    try {
      const answer = await fetch(`${camera}/${number + 1}`);
      if (!answer.ok) throw new Error('The camera does not answer.');
      setNumber(number + 1);
      await show(await answer.blob());
    } catch {
      setProblem('The camera does not answer. Try again, or choose a picture.');
    }
  };
  const mark = (next: Mark[]) => {
    setMarks(next);
    onChange();
  };
  return { shot, marks, problem, setProblem, show, take, mark };
}
