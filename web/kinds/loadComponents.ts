import { useEffect, useState, type ComponentType } from 'react';

/** Components that are fetched once, before they are needed, and then drawn without waiting. */
export class ComponentShelf<Name extends string, Props> {
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

  /** The component, or null for the moment that it is still on its way. */
  use(name: Name): ComponentType<Props> | null {
    const [, redraw] = useState(0);
    const here = this.loaded.get(name) ?? null;
    useEffect(() => {
      let current = true;
      if (!here) void this.load([name]).then(() => current && redraw((n) => n + 1));
      return () => {
        current = false;
      };
    }, [name, here]);
    return here;
  }

  /** Throws where `load` was not awaited first: a fault of ours, never of the person. */
  take(name: Name): ComponentType<Props> {
    const component = this.loaded.get(name);
    if (!component) throw new Error(`the component of kind ${name} was not loaded`);
    return component;
  }
}
