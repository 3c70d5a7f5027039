import { api, type CupboardCloth, must } from '../api/client';
import { type Stretches, useStretches } from '../frame/useStretches';

/** The cloths in the cupboard whose name holds `find`. */
export function useCupboard(find: string): Stretches<CupboardCloth> {
  return useStretches<CupboardCloth>('cupboard', find, async (query) => {
    const { cloths, found, total } = await must(api.GET('/api/cupboard', { params: { query } }));
    return { entries: cloths, found, total };
  });
}
