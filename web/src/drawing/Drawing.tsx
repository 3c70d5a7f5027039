// A drawing of the server, shown as it is.
import type { MouseEvent, ReactNode } from 'react';
import type { DrawingView } from '../api/client';

interface Props {
  drawing: DrawingView;
  /** What it shows, in words. */
  label: string;
  className?: string;
  /** Shapes laid over it, in its own pixels. */
  children?: ReactNode;
  onPiece?: (piece: string) => void;
}

export function Drawing({ drawing, label, className = '', children, onPiece }: Props) {
  const find = (event: MouseEvent) => {
    const piece = (event.target as Element).closest('[data-piece]')?.getAttribute('data-piece');
    if (piece && onPiece) onPiece(piece);
  };
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: what a click on a piece does has a keyboard twin beside every drawing
    <svg
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      className={`drawing block h-auto max-w-full ${className}`}
      width={drawing.width}
      height={drawing.height}
      role="img"
      aria-label={label}
      onClick={onPiece ? find : undefined}
    >
      <g dangerouslySetInnerHTML={{ __html: drawing.body }} />
      {children}
    </svg>
  );
}
