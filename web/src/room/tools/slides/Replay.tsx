import { CLASS, slidesAt, type RoomState } from '@nimble-bell/core/room';
import { PageView } from './PageView';
import { useReplayPages } from './useReplayPages';
import classes from './slides.module.css';

/** The pages as the class had them at a moment of its recording. */
export default function PagesReplay({ room, at }: { room: RoomState; at: { path: string; query: string } }) {
  const pages = useReplayPages(at);
  const shown = slidesAt(room, CLASS);
  if (!shown) return null;
  const { deck, page, frame } = shown;
  return (
    <div className={classes.replay} role="group" aria-label={`${deck.name}, page ${page} of ${deck.pages}`}>
      <PageView
        {...{ pages, deck, page, frame }}
        marks={room.slides.marks.filter((m) => m.place === CLASS && m.deck === deck.id && m.page === page)}
        colour="clay"
        draw={null}
      />
    </div>
  );
}
