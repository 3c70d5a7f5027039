// A dialog as large as the screen allows, which scrolls within itself; a tap beside it does not close it.
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';

interface Props {
  title: string;
  about?: string;
  /** What closing leaves undone, for who cannot see the cross. */
  closing: string;
  onClose: () => void;
  /** Takes Escape for itself, and tells whether it did: then the dialog stays. */
  onEscape?: () => boolean;
  children: ReactNode;
}

export function LargeDialog({ title, about, closing, onClose, onEscape, children }: Props) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-indigo/40" />
        <Dialog.Content
          className="fixed top-1/2 left-1/2 z-50 max-h-[96vh] w-[1080px] max-w-[98vw] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded border border-indigo bg-paper p-4 shadow-lg"
          onPointerDownOutside={(e) => e.preventDefault()}
          onEscapeKeyDown={(e) => onEscape?.() && e.preventDefault()}
          {...(about ? {} : { 'aria-describedby': undefined })}
        >
          <div className="flex items-start gap-3">
            <div className="flex-1">
              <Dialog.Title className="text-xl">{title}</Dialog.Title>
              {about && <Dialog.Description className="text-soft">{about}</Dialog.Description>}
            </div>
            <Dialog.Close className="btn px-2" aria-label={closing}>
              <X size={17} />
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
