// Width × height of a piece; either opens its reason.
import type { PieceView } from '../../api/client';
import { DimensionButton } from '../../drawing/DimensionButton';

export function PieceSize({ piece }: { piece: PieceView }) {
  return (
    <>
      <DimensionButton dimension={piece.width} name={`${piece.name}, wide`} /> ×{' '}
      <DimensionButton dimension={piece.height} name={`${piece.name}, tall`} />
    </>
  );
}
