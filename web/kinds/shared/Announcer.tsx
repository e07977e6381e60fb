import { useCallback, useState } from 'react';

/** What is said to people who listen, and shown to nobody else; the same words twice are said twice. */
export function useAnnouncer(): readonly [say: (text: string) => void, place: React.ReactElement] {
  const [said, setSaid] = useState({ text: '', turn: 0 });
  const say = useCallback((text: string) => setSaid(({ turn }) => ({ text, turn: turn + 1 })), []);
  return [
    say,
    <p key="announcer" role="status" className="sr-only">
      <span key={said.turn}>{said.text}</span>
    </p>,
  ];
}
