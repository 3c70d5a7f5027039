// Going to a field of the bag from anywhere: its options open and it takes the focus.
import { useNavigate, useParams } from 'react-router';
import type { BagField } from '../api/client';

export function useFieldFocus() {
  const navigate = useNavigate();
  const { id } = useParams();
  return (field: BagField) => navigate(`/projects/${id}/bag?field=${field}`);
}
