import { lazy, useState, type ComponentType } from 'react';
import { withRetries } from '../api/withRetries';
import { Guard, partInstead } from './Guard';

type Fetch = () => Promise<unknown>;

const pieces: Fetch[] = [];

/** A component that is fetched when it is first drawn. */
export const lazily = <Props extends object>(load: () => Promise<ComponentType<Props>>) =>
  lazy(async () => ({ default: await withRetries(load) }));

/**
 * A component that is fetched when it is first wanted, as with `lazy`; but where it was fetched before it is drawn at
 * once, and not after a moment in which nothing stands in its place.
 */
export function later<Props extends object>(load: () => Promise<ComponentType<Props>>): ComponentType<Props> {
  let component: ComponentType<Props> | null = null;
  let coming: Promise<ComponentType<Props>> | null = null;
  const fetch = () =>
    (coming ??= load().then(
      (loaded) => (component = loaded),
      (error: unknown) => {
        // It is asked for again where it is wanted again.
        coming = null;
        throw error;
      },
    ));
  pieces.push(fetch);
  const waiting = () => lazily(fetch) as ComponentType<Props>;
  const first = waiting();
  return function Later(props: Props) {
    // What is drawn stays the same component: another one in its place would lose what was done in it.
    const [Own, setOwn] = useState(() => component ?? first);
    const askAgain = (again: () => void) => {
      setOwn(() => component ?? waiting());
      again();
    };
    return (
      <Guard instead={(again) => partInstead(() => askAgain(again))}>
        <Own {...props} />
      </Guard>
    );
  };
}

// What does not come is fetched where it is wanted.
const ignoringFailure = (fetch: Fetch) => fetch().catch(() => undefined);

/** Fetches every such component of the pages that are here, and those that these bring along, as fast as they come. */
export async function fetchLater(): Promise<void> {
  for (let done = 0; done < pieces.length;) {
    const found = pieces.slice(done);
    done = pieces.length;
    await Promise.all(found.map(ignoringFailure));
  }
}

/** The same, one after the other, each after a wait of whoever calls. */
export async function fetchLaterByTurns(before: () => Promise<void>): Promise<void> {
  // Read again at each turn: what is fetched brings pieces of its own.
  for (let i = 0; i < pieces.length; i++) {
    await before();
    await ignoringFailure(pieces[i]!);
  }
}
