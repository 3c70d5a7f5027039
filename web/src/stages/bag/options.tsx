// The bag's options, each in the place it acts: a card that opens its own few fields.
import type { FieldView, GroupView } from '../../api/client';
import { ChoiceField } from '../../fields/ChoiceField';
import { ClothsField } from '../../fields/ClothsField';
import { TextField } from '../../fields/TextField';
import type { Outcome } from '../../project/outcome';
import { useProject } from '../../project/ProjectContext';

const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.6 } as const;
const square = <path d="M5 5h30v30H5z" {...line} />;

const ICONS: Record<string, React.ReactNode> = {
  size: <path d="M4 30h32M4 24v12M36 24v12M8 4v18M2 4h12M2 22h12" {...line} />,
  base: <path d="M4 5h32v22h-6v8H10v-8H4z" {...line} />,
  mouth: (
    <>
      <path d="M3 8h34v9H3z" {...line} />
      <path d="M5 23h30" {...line} strokeDasharray="3 3" />
    </>
  ),
  closure: <path d="M4 20h32M8 16v8M14 16v8M20 16v8M26 16v8M32 16v8" {...line} />,
  front: (
    <>
      {square}
      <path d="M15 5v30M25 5v30M5 15h30M5 25h30" {...line} />
    </>
  ),
  straps: <path d="M7 35V22C7 -1 33 -1 33 22v13" {...line} />,
  cord: <path d="M3 14h34M3 24h34M9 19h22M31 19c8 2 -2 8 4 15M9 19c-8 2 2 8 -4 15" {...line} />,
  pocket: (
    <>
      {square}
      <path d="M12 14h16v15H12z" {...line} />
    </>
  ),
  lining: (
    <>
      {square}
      <path d="M9 9h22v22H9z" {...line} />
    </>
  ),
  backing: (
    <>
      {square}
      <path d="M9 27L27 9M9 18l9 -9M18 31L31 18M27 31l4 -4" {...line} />
    </>
  ),
  binding: <path d="M4 12h32v6H4zM4 18v14M36 18v14" {...line} />,
  extras: (
    <>
      <path d="M15 4v10a5 5 0 0 0 10 0V4" {...line} />
      <path d="M8 24h24v11H8z" {...line} />
      <path d="M12 29.5h16" {...line} strokeDasharray="2.5 3" />
    </>
  ),
  seams: (
    <>
      {square}
      <path d="M10 6v24h20V6" {...line} strokeDasharray="2.5 3" />
    </>
  ),
};

export function GroupIcon({ group }: { group: GroupView }) {
  return (
    <svg viewBox="0 0 40 40" width="38" height="38" aria-hidden="true" className="shrink-0">
      {ICONS[group.key] ?? square}
    </svg>
  );
}

/** How many bands there are: those that say how much of them shows, and the last. */
const bandsOf = (fields: FieldView[]) =>
  (fields.find((f) => f.key === 'bands')?.value.split(',').length ?? 0) + 1;

interface Props {
  fields: FieldView[];
  focus: string | null;
  /** Choices in rows, where there are many fields. */
  inline?: boolean;
  /** Sends what was typed or chosen for a field; gives the problems, none if it stands. */
  onSet: (field: string, value: string) => Promise<Outcome>;
}

export function OptionFields({ fields, focus, inline, onSet }: Props) {
  const { view } = useProject();
  // Patches are arranged on their panel, on Pieces.
  const used = fields.filter((f) => !f.idle && f.key !== 'patch_cloths');
  if (used.length === 0) return <p>This bag has no choices here.</p>;
  return (
    <div className="flex flex-col gap-3">
      {used.map((field) =>
        field.cloths ? (
          <ClothsField
            key={field.key}
            label={field.label}
            value={field.cloths}
            bands={bandsOf(fields)}
            choices={field.answers}
            onCommit={(value) => onSet(field.key, value)}
          />
        ) : field.answers.length > 0 ? (
          <ChoiceField
            key={field.key}
            label={field.label}
            inline={inline || field.answers.every((a) => !a.note)}
            choices={field.answers.map((a) => ({ value: a.key, name: a.name, note: a.note || undefined }))}
            value={field.value}
            onChoose={(value) => onSet(field.key, value)}
          />
        ) : (
          <TextField
            key={field.key}
            label={field.label}
            value={field.length?.text ?? field.value}
            words={field.length?.words}
            unit={field.length || field.lengths ? view.system : undefined}
            hint={field.lengths ? 'from the left, separated by commas; empty for none' : undefined}
            focusKey={focus === field.key ? field.key : null}
            onCommit={(value) => onSet(field.key, value)}
          />
        ),
      )}
    </div>
  );
}
