import { createElement, useEffect, useState, type ComponentType, type ReactElement } from 'react';
import { orOnline } from '../api/orOnline';
import { retryAfterMs } from '../api/retryAfterMs';
import { Guard } from './Guard';

/** Components that are fetched once, before they are needed, and then drawn without waiting. */
export class ComponentShelf<Name extends string, Props extends object> {
  private readonly fetch: (name: Name) => Promise<ComponentType<never>>;
  private readonly loaded = new Map<Name, ComponentType<Props>>();

  constructor(fetch: (name: Name) => Promise<ComponentType<never>>) {
    this.fetch = fetch;
  }

  /** Fetches what these kinds need. */
  async load(names: Iterable<Name>): Promise<void> {
    await Promise.all(
      [...new Set(names)].map(async (name) => {
        if (!this.loaded.has(name)) this.loaded.set(name, (await this.fetch(name)) as ComponentType<Props>);
      }),
    );
  }

  has(name: Name): boolean {
    return this.loaded.has(name);
  }

  /** Draws the component of a kind. Throws where it was not loaded first: a fault of ours, never of the person. */
  draw(name: Name, props: Props & { readonly key?: string }): ReactElement {
    const component = this.loaded.get(name);
    if (!component) throw new Error(`the component of kind ${name} was not loaded`);
    return createElement(component, props);
  }

  /** The same, where a fault in it takes nothing else of the page away. `holds` says what it is drawn for. */
  drawGuarded(name: Name, props: Props, holds?: string): ReactElement {
    return <Guard holds={holds}>{this.draw(name, props)}</Guard>;
  }
}

/** Is the component of this kind here? Fetches it where it is not, until it comes, and draws again when it has. */
export function useReady<Name extends string, Props extends object>(
  shelf: ComponentShelf<Name, Props>,
  name: Name,
): boolean {
  const [, redraw] = useState(0);
  const here = shelf.has(name);
  useEffect(() => {
    let wanted = !here;
    const fetch = async () => {
      for (let failures = 0; wanted; failures++)
        try {
          await shelf.load([name]);
          if (wanted) redraw((n) => n + 1);
          return;
        } catch {
          // As on a line that is cut: nobody must have to load the page again for it.
          await orOnline(retryAfterMs(failures + 1, Math.random()));
        }
    };
    void fetch();
    return () => {
      wanted = false;
    };
  }, [shelf, name, here]);
  return here;
}
