// The bag's options, each in the place it acts: a card that opens its own few fields.
import type { BagField, ProjectView } from '../../api/client';
import { type Choice, ChoiceField } from '../../fields/ChoiceField';
import { TextField } from '../../fields/TextField';
import { useProject } from '../../project/ProjectContext';

export interface OptionCard {
  key: string;
  name: string;
  summary: (view: ProjectView) => string;
  fields: BagField[];
  icon: React.ReactNode;
  shown?: (view: ProjectView) => boolean;
}

const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.6 } as const;
const icon = (children: React.ReactNode) => (
  <svg viewBox="0 0 40 40" width="38" height="38" aria-hidden="true" className="shrink-0">
    {children}
  </svg>
);

export const sizeText = (view: ProjectView, field: string) =>
  view.bag.sizes.find((s) => s.field === field)?.value.text ?? '';

const FITS = { none: 'none', same: 'like the outer', smaller: 'a little smaller' } as const;
const BOXED = {
  'cut-out': 'cut out',
  'seam-lines': 'drawn from the seams',
  'sewn-across': 'sewn across',
} as const;
const FLEECE = {
  none: 'no fleece',
  'full-size': 'fleece, full size',
  'clear-of-seams': 'fleece, clear of seams',
} as const;

export const OPTIONS: OptionCard[] = [
  {
    key: 'corners',
    name: 'Corners',
    summary: (v) => BOXED[v.bag.boxing],
    fields: ['boxing', 'seam_boxing'],
    icon: icon(<path d="M4 5h32v22h-6v8H10v-8H4z" {...line} />),
  },
  {
    key: 'mouth',
    name: 'Mouth',
    summary: (v) =>
      v.bag.mouth === 'turned-through'
        ? `turned through, ${sizeText(v, 'seam_top')} seam`
        : `hemmed, ${sizeText(v, 'hem_depth')} deep`,
    fields: ['mouth', 'seam_top', 'hem_turn', 'hem_depth'],
    icon: icon(
      <>
        <path d="M3 8h34v9H3z" {...line} />
        <path d="M5 23h30" {...line} strokeDasharray="3 3" />
      </>,
    ),
  },
  {
    key: 'straps',
    name: 'Straps',
    summary: (v) => (v.bag.straps ? `two, ${sizeText(v, 'strap_length')} showing` : 'none'),
    fields: ['straps', 'strap_width', 'strap_length', 'strap_inset', 'strap_ends'],
    icon: icon(<path d="M7 35V22C7 -1 33 -1 33 22v13" {...line} />),
  },
  {
    key: 'pocket',
    name: 'Pocket',
    summary: (v) =>
      v.bag.lining === 'none'
        ? 'needs a lining'
        : v.bag.pocket
          ? `inside, ${sizeText(v, 'pocket_width')} × ${sizeText(v, 'pocket_height')}`
          : 'none',
    fields: ['pocket', 'pocket_width', 'pocket_height', 'pocket_below'],
    icon: icon(
      <>
        <path d="M5 5h30v30H5z" {...line} />
        <path d="M12 14h16v15H12z" {...line} />
      </>,
    ),
  },
  {
    key: 'lining',
    name: 'Lining',
    summary: (v) => FITS[v.bag.lining],
    fields: ['lining'],
    icon: icon(
      <>
        <path d="M5 5h30v30H5z" {...line} />
        <path d="M9 9h22v22H9z" {...line} />
      </>,
    ),
  },
  {
    key: 'backing',
    name: 'Backing',
    summary: (v) => FLEECE[v.bag.backing],
    fields: ['backing'],
    icon: icon(
      <>
        <path d="M5 5h30v30H5z" {...line} />
        <path d="M9 27L27 9M9 18l9 -9M18 31L31 18M27 31l4 -4" {...line} />
      </>,
    ),
  },
  {
    key: 'seams',
    name: 'Seams',
    summary: (v) => `sides ${sizeText(v, 'seam_side')}, base ${sizeText(v, 'seam_base')}`,
    fields: ['seam_side', 'seam_base', 'seam_boxing', 'seam_top'],
    icon: icon(
      <>
        <path d="M5 5h30v30H5z" {...line} />
        <path d="M10 6v24h20V6" {...line} strokeDasharray="2.5 3" />
      </>,
    ),
  },
];

const CHOICES: Partial<Record<BagField, { label: string; choices: Choice[] }>> = {
  boxing: {
    label: 'How the corners are boxed',
    choices: [
      { value: 'cut-out', name: 'Cut out', note: 'at the table, measured from the raw edges, then seamed' },
      {
        value: 'seam-lines',
        name: 'Drawn from the seam lines',
        note: 'sewn on the drawn line, trimmed after',
      },
      { value: 'sewn-across', name: 'Sewn across', note: 'side seam on base seam; the corner may stay in' },
    ],
  },
  mouth: {
    label: 'How the mouth is finished',
    choices: [
      { value: 'turned-through', name: 'Turned through', note: 'outer and lining joined by a seam' },
      { value: 'double-hem', name: 'Hem', note: 'turned twice; a lining is tucked under' },
    ],
  },
  straps: {
    label: 'Straps',
    choices: [
      { value: 'yes', name: 'Two, folded in four' },
      { value: 'no', name: 'None' },
    ],
  },
  strap_ends: {
    label: 'Their ends',
    choices: [
      { value: 'in-mouth', name: 'Caught in the mouth' },
      { value: 'outside', name: 'Stitched on the outside' },
    ],
  },
  pocket: {
    label: 'Slip pocket on the lining',
    choices: [
      { value: 'yes', name: 'One, doubled' },
      { value: 'no', name: 'None' },
    ],
  },
  lining: {
    label: 'Lining',
    choices: [
      { value: 'same', name: 'Like the outer' },
      { value: 'smaller', name: 'A little smaller', note: '⅛ in or 3 mm a side, so that it does not bag' },
      { value: 'none', name: 'None' },
    ],
  },
  backing: {
    label: 'Fleece behind the outer',
    choices: [
      { value: 'none', name: 'None', note: 'canvas stands by itself' },
      { value: 'full-size', name: 'Full size', note: 'caught in the seams, trimmed after' },
      { value: 'clear-of-seams', name: 'Clear of the seams', note: 'inside the allowances all round' },
    ],
  },
};

const SIZES: Partial<Record<BagField, string>> = {
  seam_side: 'Side seams',
  seam_base: 'Base seam',
  seam_boxing: 'Boxing seam',
  seam_top: 'Top seam',
  hem_turn: 'Turned under first',
  hem_depth: 'Hem',
  strap_width: 'Finished width',
  strap_length: 'How much shows',
  strap_inset: 'In from the edge of the face',
  pocket_width: 'Wide, finished',
  pocket_height: 'Tall, finished',
  pocket_below: 'Below the mouth',
};

/** Fields that say nothing while another choice stands. */
function idle(view: ProjectView, field: BagField): boolean {
  const { bag } = view;
  if (field === 'seam_top') return bag.mouth !== 'turned-through';
  if (field === 'hem_turn' || field === 'hem_depth') return bag.mouth !== 'double-hem';
  if (field.startsWith('strap_')) return !bag.straps;
  if (field.startsWith('pocket')) return bag.lining === 'none' || (field !== 'pocket' && !bag.pocket);
  return false;
}

export function OptionFields({ fields, focus }: { fields: BagField[]; focus: string | null }) {
  const { view, edit } = useProject();
  const { bag } = view;
  const chosen: Partial<Record<BagField, string>> = {
    boxing: bag.boxing,
    mouth: bag.mouth,
    straps: bag.straps ? 'yes' : 'no',
    strap_ends: bag.strap_ends,
    pocket: bag.pocket ? 'yes' : 'no',
    lining: bag.lining,
    backing: bag.backing,
  };
  const choose = (field: BagField, value: string) => {
    // A mouth turned through needs a lining, so the one choice brings the other along.
    if (field === 'mouth' && value === 'turned-through' && bag.lining === 'none') {
      edit({ edit: 'bag', field: 'lining', value: 'same' }, { edit: 'bag', field, value });
    } else if (field === 'lining' && value === 'none' && bag.mouth === 'turned-through') {
      edit({ edit: 'bag', field: 'mouth', value: 'double-hem' }, { edit: 'bag', field, value });
    } else {
      edit({ edit: 'bag', field, value });
    }
  };
  const used = fields.filter((f) => !idle(view, f));
  if (used.length === 0) return <p>The pocket is sewn on a lining: choose one first.</p>;
  return (
    <div className="flex flex-col gap-3">
      {used.map((field) => {
        const choice = CHOICES[field];
        if (choice) {
          return (
            <ChoiceField
              key={field}
              label={choice.label}
              choices={choice.choices}
              value={chosen[field] ?? ''}
              onChoose={(value) => choose(field, value)}
            />
          );
        }
        const size = bag.sizes.find((s) => s.field === field);
        return (
          <TextField
            key={field}
            label={SIZES[field] ?? field}
            value={size?.value.text ?? ''}
            words={size?.value.words}
            unit={view.system}
            focusKey={focus === field ? field : null}
            onCommit={(value) => edit({ edit: 'bag', field, value })}
          />
        );
      })}
    </div>
  );
}
