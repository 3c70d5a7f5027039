// A drawing of the server, shown as it is.
import type { MouseEvent, ReactNode } from 'react';
import type { DrawingView } from '../api/client';

interface Props {
  drawing: DrawingView;
  /** What it shows, in words; empty where the text beside it says it already. */
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
    <svg
      viewBox={`0 0 ${drawing.width} ${drawing.height}`}
      className={`drawing block h-auto max-w-full ${className}`}
      width={drawing.width}
      height={drawing.height}
      role={label ? 'img' : undefined}
      aria-label={label || undefined}
      aria-hidden={label === ''}
      onClick={onPiece ? find : undefined}
    >
      <g dangerouslySetInnerHTML={{ __html: drawing.body }} />
      {children}
    </svg>
  );
}
