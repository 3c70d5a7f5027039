// Which wall is looked at and which part is in hand; both are in the address, so that a link opens the same place.
import { useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import type { BagView, Edit } from '../../../api/client';
import { useProject } from '../../../project/ProjectContext';

export function useParts(bag: BagView) {
  const { edit } = useProject();
  const [search, setSearch] = useSearchParams();
  // `part-3.width` is a field of a part.
  const field = /^part-(\d+)\.(.+)$/.exec(search.get('field') ?? '');
  const id = field ? Number(field[1]) : Number(search.get('part') ?? Number.NaN);
  const part = bag.parts.find((p) => p.id === id) ?? null;
  const wanted = search.get('wall');
  const shown = part && !part.walls.includes(wanted ?? '') ? part.walls[0] : wanted;
  const face = bag.faces.find((f) => f.wall === shown) ?? null;

  const open = (next: number | null) => {
    const to: Record<string, string> = {};
    if (next !== null) to.part = String(next);
    else if (face) to.wall = face.wall;
    setSearch(to, { replace: true });
  };
  const look = (wall: string | null) => setSearch(wall ? { wall } : {}, { replace: true });

  // A part that is added is opened once the changed bag is here.
  const before = useRef<Set<number> | null>(null);
  const add = async (what: Edit) => {
    before.current = new Set(bag.parts.map((p) => p.id));
    const outcome = await edit(what);
    if (outcome.is !== 'ok') before.current = null;
    return outcome;
  };
  useEffect(() => {
    const newest = before.current && bag.parts.find((p) => !before.current?.has(p.id));
    if (newest) {
      before.current = null;
      setSearch({ part: String(newest.id) }, { replace: true });
    }
  }, [bag.parts, setSearch]);
  return { part, face, focus: field?.[2] ?? null, open, look, add };
}
