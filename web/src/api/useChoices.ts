// The lists of choices that belong to no one project, as the server tells them.
import { useQuery } from '@tanstack/react-query';
import { api, type ChoicesView, must } from './client';

const NONE: ChoicesView = {
  systems: [],
  rulers: [],
  materials: [],
  patterns: [],
  prints: [],
  print_up: [],
  joins: [],
  parts: [],
  part_kinds: [],
  row_shapes: [],
  flaws: [],
  edges: [],
};

export function useChoices(): ChoicesView {
  const choices = useQuery({
    queryKey: ['choices'],
    queryFn: () => must(api.GET('/api/choices')),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return choices.data ?? NONE;
}

/** As the choice fields take them. */
export const asChoices = (list: { key: string; name: string }[]) =>
  list.map(({ key, name }) => ({ value: key, name }));
