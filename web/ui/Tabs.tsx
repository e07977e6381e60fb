import { Tabs } from 'radix-ui';

interface StripProps<T extends string> {
  readonly names: readonly T[];
  readonly titleOf: (name: T) => string;
}

/** The tabs of a narrow screen: what stands side by side elsewhere. Goes into a `Tabs.Root`. */
export function TabStrip<T extends string>({ names, titleOf }: StripProps<T>) {
  return (
    <Tabs.List className="flex border-b border-line">
      {names.map((name) => (
        <Tabs.Trigger
          key={name}
          value={name}
          className="min-h-11 min-w-0 flex-1 border-b-3 [overflow-wrap:anywhere] border-transparent text-soft data-[state=active]:border-kelp data-[state=active]:font-semibold data-[state=active]:text-ink"
        >
          {titleOf(name)}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  );
}

interface PanelProps extends React.ComponentProps<'div'> {
  readonly name: string;
  readonly shown: boolean;
}

/** Fills its frame. Out of view it stays laid out: without a box of its own it would lose its scroll. */
export function LaidOutPanel({ name, shown, className, ...rest }: PanelProps) {
  return (
    <Tabs.Content
      value={name}
      forceMount
      hidden={false}
      inert={!shown}
      tabIndex={-1}
      data-layer
      data-waiting={shown ? undefined : ''}
      className={`absolute inset-0 ${shown ? '' : 'invisible'} ${className ?? ''}`}
      {...rest}
    />
  );
}
