// What is owned, drawn at one scale: lengths, then what has two sizes, then scraps.
import type { CupboardCloth } from '../api/client';
import { Drawing } from '../drawing/Drawing';

type Thing = CupboardCloth['things'][number];

const SHELVES: [Thing['kind'], string][] = [
  ['length', 'Lengths'],
  ['sheet', 'Fat quarters, squares, remnants'],
  ['scrap', 'Scraps'],
];

export function Shelves({ cloths }: { cloths: CupboardCloth[] }) {
  const all = cloths.flatMap((cloth) => cloth.things.map((thing, n) => ({ cloth, thing, n })));
  // Once something is looked for that holds a size, what does not is faded.
  const some = all.some(({ thing }) => thing.holds);
  return (
    <>
      {SHELVES.map(([kind, name]) => {
        const here = all.filter(({ thing }) => thing.kind === kind);
        if (here.length === 0) return null;
        return (
          <section key={kind} aria-label={name} className="mb-5">
            <h2 className="mb-2 text-lg">{name}</h2>
            <ul className="flex flex-wrap items-end gap-x-6 gap-y-4 border-b-[9px] border-[#b8965f] pb-2">
              {here.map(({ cloth, thing, n }) => (
                <li key={`${cloth.id}-${n}`} className="max-w-full leading-tight">
                  <a
                    href={`#cloth-${cloth.id}`}
                    className={`block rounded-sm p-1 hover:bg-[#fbf7ec] ${some && thing.holds ? 'outline outline-3 outline-chalk' : ''}`}
                  >
                    <span className={`block ${some && !thing.holds ? 'opacity-40' : ''}`}>
                      <Drawing drawing={thing.drawing} label="" className="drop-shadow-sm" />
                    </span>
                    <span className="mt-1 block font-bold">{cloth.name}</span>
                    <span className="block max-w-52 text-sm text-soft">
                      {thing.label}
                      {cloth.place && ` · ${cloth.place}`}
                    </span>
                    {some && thing.holds && <span className="sr-only">holds it</span>}
                  </a>
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </>
  );
}
