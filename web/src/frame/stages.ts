// The stages of the work, in working order, with the figure that stands under each.
import type { ProjectView } from '../api/client';

export interface StageInfo {
  key: 'bag' | 'pieces' | 'cloth' | 'lay' | 'buy' | 'cut';
  name: string;
  figure: (view: ProjectView) => string;
  /** Something here needs attention. */
  pin: (view: ProjectView) => boolean;
}

/** The finished sizes in use, or how many rows a cut list of one's own has. */
export function sizes(view: ProjectView): string {
  if (view.bag.family === 'cut-list') return `${view.bag.rows.length} rows`;
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
    figure: (v) => `${v.tally.pieces} in ${v.parts.length} ${v.parts.length === 1 ? 'bundle' : 'bundles'}`,
    pin: pinned('pieces'),
  },
  {
    key: 'cloth',
    name: 'Cloth',
    figure: (v) =>
      v.cloths.length === 0 ? 'none yet' : `${v.cloths.length} ${v.cloths.length === 1 ? 'cloth' : 'cloths'}`,
    pin: pinned('cloth'),
  },
  {
    key: 'lay',
    name: 'Lay',
    figure: (v) => (v.lay ? `${v.lay.used_percent} % becomes bag` : '–'),
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
];
