import { useContext } from 'react';
import { useNavigate, useParams } from 'react-router';
import { LinkContext } from '../../app/api';
import { useInfo } from '../live/useRoom';

/** Leaves the room: to one's own page of the course, or to the session's. */
export function useLeave(): () => void {
  const navigate = useNavigate();
  const link = useContext(LinkContext);
  const { code } = useParams();
  const { course, session } = useInfo();
  return () => void navigate(link ? `/in/${code}` : `/course/${course.id}/session/${session.id}`);
}
