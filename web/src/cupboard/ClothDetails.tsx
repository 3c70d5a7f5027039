// What is done with a cloth in the cupboard: more of it put in, some thrown away, what is there put right, where it is kept.
import type { CupboardCloth } from '../api/client';
import { TextField } from '../fields/TextField';
import { useClothChange } from './useClothChange';

export function ClothDetails({ cloth: c }: { cloth: CupboardCloth }) {
  const change = useClothChange(c.id);
  return (
    <details className="mt-1">
      <summary className="text-sm font-bold text-chalk hover:underline">
        Add, remove, correct, change its place
      </summary>
      <div className="mt-1 flex flex-col gap-2">
        <TextField
          label={`More of ${c.name}`}
          value=""
          placeholder="2 fat quarters, 18 x 22"
          hint="Press Enter to add it, then type the next."
          onCommit={(value) => change('put-in', value)}
        />
        {c.at_hand !== '' && (
          <TextField
            label="Remove: thrown away, used up or given away"
            value=""
            placeholder={c.at_hand}
            onCommit={(value) => change('throw-away', value)}
          />
        )}
        <TextField
          label="Counted: what is here now"
          value={c.at_hand}
          placeholder="none"
          onCommit={(value) => change('correct', value)}
        />
        <TextField
          label="Place"
          value={c.place}
          placeholder="blue crate"
          onCommit={(value) => change('place', value)}
        />
      </div>
    </details>
  );
}
