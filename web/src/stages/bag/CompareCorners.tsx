// The same bag with its corners boxed each way: different pieces, the same finished sizes, side by side.
import { useQuery } from '@tanstack/react-query';
import { Dialog } from 'radix-ui';
import { ApiError, api, must } from '../../api/client';
import { Drawing } from '../../drawing/Drawing';
import { useProject } from '../../project/ProjectContext';

export function CompareCorners() {
  const { view, edit } = useProject();
  const answers = view.bag.groups.flatMap((g) => g.fields).find((f) => f.key === 'boxing')?.answers ?? [];
  const both = useQuery({
    queryKey: ['corners', view.id, view.revision],
    queryFn: () =>
      Promise.all(
        answers.map(async (a) => {
          try {
            return await must(
              api.POST('/api/projects/{id}/preview', {
                params: { path: { id: view.id } },
                body: {
                  based_on: view.revision,
                  edits: [{ edit: 'bag', field: 'boxing', value: a.key }],
                },
              }),
            );
          } catch (error) {
            // What this bag cannot have stands beside the others, with the reason.
            if (error instanceof ApiError && error.status === 422) return error.message;
            throw error;
          }
        }),
      ),
    enabled: false,
  });
  return (
    <Dialog.Root onOpenChange={(open) => open && both.refetch()}>
      <Dialog.Trigger asChild>
        <button type="button" className="btn mt-3">
          Compare
        </button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-indigo/40" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-50 max-h-[92vh] w-[1040px] max-w-[96vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded border border-indigo bg-paper p-5 shadow-lg">
          <Dialog.Title className="text-xl">The same bag, boxed in each way</Dialog.Title>
          <Dialog.Description className="text-soft">
            The pieces differ. The finished sizes stay the same.
          </Dialog.Description>
          {both.isFetching && <p className="mt-3">Working out the pieces …</p>}
          {both.isError && <p role="alert">{both.error.message}</p>}
          <ul className="mt-3 grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
            {both.data?.map((other, i) => {
              const answer = answers[i];
              if (answer && typeof other === 'string') {
                return (
                  <li key={answer.key} className="sheet flex flex-col p-3">
                    <h3 className="text-lg">{answer.name}</h3>
                    <p className="text-sm text-soft">{answer.note}</p>
                    <p className="mt-2">{other}</p>
                  </li>
                );
              }
              if (typeof other === 'string') return null;
              const panel = other.pieces.find((p) => p.id === 'outer-panel') ?? other.pieces[0];
              if (!answer || !panel) return null;
              return (
                <li key={answer.key} className="sheet flex flex-col p-3">
                  <h3 className="text-lg">{answer.name}</h3>
                  <p className="text-sm text-soft">{answer.note}</p>
                  <Drawing
                    drawing={panel.drawing}
                    label={`${panel.name}, ${answer.name}`}
                    className="my-2 w-full"
                  />
                  <p>
                    {panel.name} {panel.width.size.text} × {panel.height.size.text}
                    {panel.corner_across && panel.corner_up
                      ? `, corners ${panel.corner_across.size.text} × ${panel.corner_up.size.text} out`
                      : ', corners not cut out'}
                  </p>
                  <ul className="text-sm text-chalk">
                    {panel.marks.map((m) => (
                      <li key={m}>{m}</li>
                    ))}
                  </ul>
                  <dl className="mt-2 border-t border-ruled pt-2">
                    {other.bag.finished.map((f) => (
                      <div key={f.name} className="flex justify-between">
                        <dt>{f.name}</dt>
                        <dd className="font-bold">
                          {f.back.text} {other.system}
                        </dd>
                      </div>
                    ))}
                  </dl>
                  <Dialog.Close asChild>
                    <button
                      type="button"
                      className="btn mt-auto self-start"
                      onClick={() => edit({ edit: 'bag', field: 'boxing', value: answer.key })}
                    >
                      Use this boxing
                    </button>
                  </Dialog.Close>
                </li>
              );
            })}
          </ul>
          <Dialog.Close asChild>
            <button type="button" className="btn mt-4">
              Close
            </button>
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
