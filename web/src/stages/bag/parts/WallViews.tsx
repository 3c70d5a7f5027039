// The whole bag, and each of its walls: which one is looked at.
import type { BagView } from '../../../api/client';
import { Drawing } from '../../../drawing/Drawing';

interface Props {
  bag: BagView;
  /** The key of the wall that is looked at; nothing for the whole bag. */
  wall: string | null;
  onLook: (wall: string | null) => void;
}

export function WallViews({ bag, wall, onLook }: Props) {
  const item =
    'flex h-full w-full flex-col items-center justify-between gap-0.5 rounded border border-ruled bg-paper px-1 pt-1 pb-0.5 text-sm leading-none enabled:hover:border-indigo aria-pressed:border-indigo aria-pressed:bg-tape/60 aria-pressed:font-bold disabled:opacity-100';
  return (
    <nav aria-label="View of the bag">
      <ul className="flex flex-wrap gap-1 lg:flex-col">
        <li className="w-[84px]">
          <button type="button" aria-pressed={wall === null} className={item} onClick={() => onLook(null)}>
            <Drawing drawing={bag.drawing} label="" className="h-[28px] w-auto" />
            Whole bag
          </button>
        </li>
        {bag.faces.map((face) => (
          <li key={face.wall} className="w-[84px]">
            <button
              type="button"
              aria-pressed={wall === face.wall}
              className={item}
              onClick={() => onLook(face.wall)}
            >
              <Drawing drawing={face.drawing} label="" className="h-[28px] w-auto" />
              {face.name}
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}
