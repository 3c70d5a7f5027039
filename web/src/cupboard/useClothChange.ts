import { useQueryClient } from '@tanstack/react-query';
import { api, type CupboardEdit, must } from '../api/client';
import { type Outcome, outcomeOf } from '../project/outcome';

/** Does something with a cloth of the cupboard: more of it, less of it, put right, taken back, kept elsewhere. */
export function useClothChange(id: string) {
  const queries = useQueryClient();
  return async (what: CupboardEdit['what'], value: string): Promise<Outcome> => {
    const outcome = await outcomeOf(() =>
      must(api.POST('/api/cupboard/{id}', { params: { path: { id } }, body: { what, value } })),
    );
    // What plans with it may be more than is there now, or may lie with a bag no more.
    await queries.invalidateQueries({ queryKey: ['cupboard'] });
    queries.invalidateQueries({ queryKey: ['claims'] });
    return outcome;
  };
}
