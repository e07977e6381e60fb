import { createElement, lazy, useState, type ComponentType } from 'react';

type Fetch = () => Promise<unknown>;

const pieces: Fetch[] = [];

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
  const Waiting = lazy(async () => ({ default: await fetch() }));
  return function Later(props: Props) {
    // What is drawn stays the same component: another one in its place would lose what was done in it.
    const [Own] = useState(() => component ?? (Waiting as ComponentType<Props>));
    return createElement(Own, props);
  };
}

/** Fetches every such component of the pages that are here, and those that these bring along. */
export async function fetchLater(before: () => Promise<void> | void = () => undefined): Promise<void> {
  for (let i = 0; i < pieces.length; i++) {
    await before();
    // What does not come is fetched where it is wanted.
    await pieces[i]!().catch(() => undefined);
  }
}
