import { useStore } from 'zustand';
import { said } from './announce';

/** The one place of a page from which `announce` is heard: each addition is read out, after what is being read. */
export const Announcer = () => (
  <div aria-live="polite" aria-atomic="false" data-announcer className="sr-only">
    {useStore(said, (s) => s.all).map(({ turn, text }) => (
      <p key={turn}>{text}</p>
    ))}
  </div>
);
