interface Props {
  readonly label: string;
  readonly value: number;
  readonly most: number;
  /** The value in words. */
  readonly text: string;
  readonly className?: string;
}

/** How much of something is done, as a bar. */
export function Progress({ label, value, most, text, className = '' }: Props) {
  const percent = most > 0 ? Math.min(100, (value / most) * 100) : 0;
  return (
    <div
      role="progressbar"
      aria-label={label}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={Math.round(percent)}
      aria-valuetext={text}
      className={`h-2 overflow-hidden rounded-full border border-edge bg-card ${className}`}
    >
      <div className="h-full bg-kelp" style={{ width: `${percent}%` }} />
    </div>
  );
}
