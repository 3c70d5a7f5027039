// What is said of a cloth in the cupboard: more of it put in, what is there put right, where it is kept.
import { useQueryClient } from '@tanstack/react-query';
import { api, type CupboardCloth, type CupboardField, must } from '../api/client';
import { TextField } from '../fields/TextField';
import { type Outcome, outcomeOf } from '../project/outcome';

export function ClothDetails({ cloth: c }: { cloth: CupboardCloth }) {
  const queries = useQueryClient();
  const set =
    (field: CupboardField) =>
    async (value: string): Promise<Outcome> => {
      const path = { id: c.id };
      const outcome = await outcomeOf(() =>
        must(api.POST('/api/cupboard/{id}', { params: { path }, body: { field, value } })),
      );
      if (outcome.is === 'ok') await queries.invalidateQueries({ queryKey: ['cupboard'] });
      return outcome;
    };
  return (
    <details className="mt-1">
      <summary className="text-sm font-bold text-chalk hover:underline">
        Put in, put right, where it is
      </summary>
      <div className="mt-1 flex flex-col gap-2">
        <TextField
          label={`More of ${c.name}`}
          value=""
          placeholder="2 fat quarters, 18 x 22"
          hint="Enter lays it in; then the next."
          onCommit={set('put_in')}
        />
        <TextField label="All that is there" value={c.at_hand} placeholder="none" onCommit={set('at_hand')} />
        <TextField
          label="Where it is kept"
          value={c.place}
          placeholder="blue crate"
          onCommit={set('place')}
        />
      </div>
    </details>
  );
}
