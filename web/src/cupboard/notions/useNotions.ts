import { useQueryClient } from '@tanstack/react-query';
import { api, done, must, type NewNotion, type NotionChange, type NotionView } from '../../api/client';
import { type Stretches, useStretches } from '../../frame/useStretches';
import { outcomeOf } from '../../project/outcome';

/** The notions whose name, size or place holds `find`. */
export function useNotions(find: string): Stretches<NotionView> {
  return useStretches<NotionView>('notions', find, async (query) => {
    const { notions, found, total } = await must(api.GET('/api/notions', { params: { query } }));
    return { entries: notions, found, total };
  });
}

/** The ways to change what is there. */
export function useNotionChanges() {
  const queries = useQueryClient();
  const after = async (call: () => Promise<unknown>) => {
    const outcome = await outcomeOf(call);
    await queries.invalidateQueries({ queryKey: ['notions'] });
    return outcome;
  };
  return {
    putIn: (body: NewNotion) => after(() => must(api.POST('/api/notions', { body }))),
    change: (id: string, what: NotionChange['what'], value: string) =>
      after(() => must(api.POST('/api/notions/{id}', { params: { path: { id } }, body: { what, value } }))),
    forget: (id: string) => after(() => done(api.DELETE('/api/notions/{id}', { params: { path: { id } } }))),
  };
}
