// The stages of the work, in working order, with the figure that stands under each.
import type { ProjectView } from '../api/client';

/** `1 row`, `2 rows`. */
const counted = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`;

export interface StageInfo {
  key: 'bag' | 'pieces' | 'cloth' | 'lay' | 'buy' | 'cut' | 'make';
  name: string;
  figure: (view: ProjectView) => string;
  /** Something here needs attention. */
  pin: (view: ProjectView) => boolean;
}

/** The finished sizes in use, or how many rows a cut list of one's own has. */
export function sizes(view: ProjectView): string {
  if (view.bag.family === 'cut-list') return counted(view.bag.rows.length, 'row');
  const all = view.bag.groups.flatMap((g) => g.fields);
  return ['width', 'height', 'depth']
    .map((key) => all.find((f) => f.key === key && !f.idle)?.length)
    .filter((length) => length && length.exact > 0)
    .map((length) => length?.text)
    .join(' × ');
}
const pinned = (stage: string) => (view: ProjectView) =>
  view.notices.some((n) => n.attention && n.stage === stage);

export const STAGES: StageInfo[] = [
  {
    key: 'bag',
    name: 'Bag',
    figure: sizes,
    pin: pinned('bag'),
  },
  {
    key: 'pieces',
    name: 'Pieces',
    figure: (v) =>
      v.tally.pieces === 0 ? 'none yet' : `${v.tally.pieces} in ${counted(v.parts.length, 'bundle')}`,
    pin: pinned('pieces'),
  },
  {
    key: 'cloth',
    name: 'Cloth',
    figure: (v) => (v.cloths.length === 0 ? 'none yet' : counted(v.cloths.length, 'cloth')),
    pin: pinned('cloth'),
  },
  {
    key: 'lay',
    name: 'Lay',
    figure: (v) => (v.lay ? `${v.lay.used_percent} % used` : '–'),
    pin: pinned('lay'),
  },
  {
    key: 'buy',
    name: 'Buy',
    figure: (v) => (v.lay ? [v.lay.bought, v.lay.cost].filter(Boolean).join(' · ') : '–'),
    pin: pinned('buy'),
  },
  {
    key: 'cut',
    name: 'Cut',
    figure: (v) => (v.steps > 0 ? `${v.steps_done} of ${v.steps}` : '–'),
    pin: pinned('cut'),
  },
  {
    key: 'make',
    name: 'Make',
    figure: (v) =>
      v.steps_of_making > 0 ? `${v.steps_made} of ${v.steps_of_making}` : v.has_notes ? 'notes' : '–',
    pin: pinned('make'),
  },
];
