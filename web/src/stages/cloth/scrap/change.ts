// Changes to the drawing of a scrap. Corners are counted from 0; lengths are the server's exact units.
import type { Flaw, KeptEdge, Point, ScrapDraft } from '../../../api/client';

/** A to Z, then AA, as the server letters them. */
export function letters(n: number): string {
  const last = String.fromCharCode(65 + (n % 26));
  return n < 26 ? last : letters(Math.floor(n / 26) - 1) + last;
}

const near = (n: number) => Math.round(n);

/** A corner somewhere else: what was measured to it is not known any more. */
export function moveCorner(draft: ScrapDraft, k: number, to: Point): ScrapDraft {
  return {
    ...draft,
    corners: draft.corners.map((p, i) => (i === k ? { x: near(to.x), y: near(to.y) } : p)),
    measured: (draft.measured ?? []).filter((m) => m.from !== k && m.to !== k),
  };
}

/** One more corner on the side after corner `k`. */
export function addCorner(draft: ScrapDraft, k: number, at: Point): ScrapDraft {
  const place = { x: near(at.x), y: near(at.y) };
  const moved = (i: number) => (i > k ? i + 1 : i);
  const n = draft.corners.length;
  // Halved, a kept edge is kept on both sides of the new corner.
  const halved = (draft.kept ?? []).filter((e) => e.side === k).map((e) => ({ ...e, side: k + 1 }));
  const side = (m: { from: number; to: number }) =>
    (m.from === k && m.to === (k + 1) % n) || (m.to === k && m.from === (k + 1) % n);
  return {
    ...draft,
    corners: [...draft.corners.slice(0, k + 1), place, ...draft.corners.slice(k + 1)],
    measured: (draft.measured ?? [])
      .filter((m) => !side(m))
      .map((m) => ({ ...m, from: moved(m.from), to: moved(m.to) })),
    kept: [...(draft.kept ?? []).map((e) => ({ ...e, side: moved(e.side) })), ...halved],
  };
}

export function removeCorner(draft: ScrapDraft, k: number): ScrapDraft {
  const moved = (i: number) => (i > k ? i - 1 : i);
  const n = draft.corners.length;
  const before = (k + n - 1) % n;
  const kindAt = (side: number) => (draft.kept ?? []).find((e) => e.side === side)?.kind;
  return {
    ...draft,
    corners: draft.corners.filter((_, i) => i !== k),
    measured: (draft.measured ?? [])
      .filter((m) => m.from !== k && m.to !== k)
      .map((m) => ({ ...m, from: moved(m.from), to: moved(m.to) })),
    // Two sides become one: kept where both were, and alike.
    kept: (draft.kept ?? [])
      .filter((e) => e.side !== k && (e.side !== before || kindAt(k) === e.kind))
      .map((e) => ({ ...e, side: moved(e.side) })),
  };
}

/** The longest side that is not kept yet is kept. */
export function keepEdge(draft: ScrapDraft, kind: KeptEdge['kind']): ScrapDraft {
  const kept = draft.kept ?? [];
  const n = draft.corners.length;
  const long = (k: number) => {
    const [a, b] = [draft.corners[k], draft.corners[(k + 1) % n]];
    return a && b ? Math.hypot(a.x - b.x, a.y - b.y) : 0;
  };
  const free = draft.corners.map((_, k) => k).filter((k) => !kept.some((e) => e.side === k));
  const [side] = free.sort((a, b) => long(b) - long(a));
  return side === undefined ? draft : { ...draft, kept: [...kept, { kind, side }] };
}

/** A distance as typed; empty takes it away. */
export function measure(draft: ScrapDraft, from: number, to: number, length: string): ScrapDraft {
  const others = (draft.measured ?? []).filter(
    (m) => !((m.from === from && m.to === to) || (m.from === to && m.to === from)),
  );
  return { ...draft, measured: length.trim() === '' ? others : [...others, { from, to, length }] };
}

export function measuredAs(draft: ScrapDraft, from: number, to: number): string {
  const found = (draft.measured ?? []).find(
    (m) => (m.from === from && m.to === to) || (m.from === to && m.to === from),
  );
  return found?.length ?? '';
}

/** The box round some places. */
export function around(places: Point[]) {
  const xs = places.map((p) => p.x);
  const ys = places.map((p) => p.y);
  const [left, right] = [Math.min(...xs), Math.max(...xs)];
  const [low, high] = [Math.min(...ys), Math.max(...ys)];
  return { left, right, low, high, width: right - left, height: high - low };
}

const boxed = (left: number, low: number, width: number, height: number): Point[] => [
  { x: near(left), y: near(low) },
  { x: near(left + width), y: near(low) },
  { x: near(left + width), y: near(low + height) },
  { x: near(left), y: near(low + height) },
];

/** A flaw `side` wide and tall in the middle of the scrap. */
export function addFlaw(draft: ScrapDraft, kind: Flaw['kind'], side: number): ScrapDraft {
  const all = around(draft.corners);
  const [x, y] = [(all.left + all.right) / 2, (all.low + all.high) / 2];
  const corners = boxed(x - side / 2, y - side / 2, side, side);
  return { ...draft, flaws: [...(draft.flaws ?? []), { kind, corners }] };
}

export const removeFlaw = (draft: ScrapDraft, k: number): ScrapDraft => ({
  ...draft,
  flaws: (draft.flaws ?? []).filter((_, i) => i !== k),
});

const withFlaw = (draft: ScrapDraft, k: number, of: (corners: Point[]) => Point[]): ScrapDraft => ({
  ...draft,
  flaws: (draft.flaws ?? []).map((f, i) => (i === k ? { ...f, corners: of(f.corners) } : f)),
});

export const moveFlaw = (draft: ScrapDraft, k: number, dx: number, dy: number): ScrapDraft =>
  withFlaw(draft, k, (corners) => corners.map((p) => ({ x: near(p.x + dx), y: near(p.y + dy) })));
