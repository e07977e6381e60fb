import type { Announcements } from '@dnd-kit/core';
import { announce } from '../../ui/announce';

const say = (text: string | undefined): undefined => {
  if (text) announce(text);
};

/** What is said of dragging, said by the one announcer of the page instead of one that the library brings. */
export const spoken = (all: Announcements): Announcements => ({
  onDragStart: (event) => say(all.onDragStart(event)),
  onDragOver: (event) => say(all.onDragOver(event)),
  onDragEnd: (event) => say(all.onDragEnd(event)),
  onDragCancel: (event) => say(all.onDragCancel(event)),
});
