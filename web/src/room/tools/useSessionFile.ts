import { useContext, useState } from 'react';
import { LinkContext } from '../../app/api';
import { sendFile } from '../../ui/sendFile';
import { useInfo } from '../live/useRoom';

/** A file for this session, for the class or for those who teach alone until it is given to it; how much of it is sent, 0 to 1. */
export function useSessionFile(whose: 'teachers' | 'class' = 'teachers'): {
  share: number | null;
  sendUp: (file: File) => Promise<string>;
} {
  const { session, course } = useInfo();
  const link = useContext(LinkContext);
  const [share, setShare] = useState<number | null>(null);
  const sendUp = async (file: File) => {
    setShare(0);
    try {
      const query = new URLSearchParams({ name: file.name, session: session.id, for: whose });
      const at = `/api/courses/${course.id}/materials?${query}`;
      return ((await sendFile(at, file, { tell: setShare, link })) as { id: string }).id;
    } finally {
      setShare(null);
    }
  };
  return { share, sendUp };
}
