// The reason for a number: a piece of tape cut into named lengths that add up to it.
import type { BagField, DimensionView } from '../api/client';

const SHADES = ['#E9C95B', '#F2DF9B', '#DDB43C', '#F7EBC0'];

interface Props {
  dimension: DimensionView;
  unit: string;
  /** Goes to the field a term comes from. */
  onField?: (field: BagField) => void;
}

export function ReasonTape({ dimension, unit, onField }: Props) {
  const added = dimension.terms.filter((t) => t.value.exact > 0);
  const total = added.reduce((sum, t) => sum + t.value.exact, 0);
  return (
    <div>
      <div className="flex h-10 overflow-hidden rounded-[3px] border border-tape-edge" aria-hidden="true">
        {added.map((term, i) => (
          <div
            key={term.name}
            className="ticks flex min-w-5 items-start justify-center border-r border-tape-edge pt-1 text-sm font-bold last:border-r-0"
            style={{
              width: `${(term.value.exact / total) * 100}%`,
              backgroundColor: SHADES[i % SHADES.length],
            }}
          >
            {term.value.exact / total > 0.05 ? term.value.text : ''}
          </div>
        ))}
      </div>
      <p className="mt-1.5 flex flex-wrap items-center gap-x-1.5 gap-y-1">
        {dimension.terms.map((term, i) => {
          const minus = term.times < 0;
          const times = Math.abs(term.times);
          const size = term.each.exact < 0 ? term.each.text.replace('−', '') : term.each.text;
          const text = `${times > 1 ? `${times} × ` : ''}${size} ${term.name}`;
          const sign = i === 0 ? '' : minus ? '−' : '+';
          const shade = SHADES[added.indexOf(term) % SHADES.length];
          const field = term.field;
          return (
            <span key={term.name} className="flex items-center gap-1.5">
              {sign && <span aria-hidden="true">{sign}</span>}
              {field && onField ? (
                <button
                  type="button"
                  className="rounded-[3px] border border-tape-edge px-1.5 hover:border-indigo"
                  style={{ backgroundColor: minus ? 'transparent' : shade }}
                  title="Go to this size"
                  onClick={() => onField(field)}
                >
                  {text}
                </button>
              ) : (
                <span
                  className="rounded-[3px] border border-tape-edge px-1.5"
                  style={{ backgroundColor: minus ? 'transparent' : shade }}
                >
                  {text}
                </span>
              )}
            </span>
          );
        })}
        <strong className="font-heading text-lg whitespace-nowrap">
          = {dimension.size.text} {unit}
        </strong>
      </p>
    </div>
  );
}
