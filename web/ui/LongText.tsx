interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (text: string) => void;
  readonly rows?: number;
  /** The most characters that it takes. */
  readonly most?: number;
  readonly className?: string;
}

/** A field for some sentences, with its label above it. */
export function LongText({ label, value, onChange, rows = 2, most = 1000, className = '' }: Props) {
  return (
    <label className={`block ${className}`}>
      {label}
      <textarea
        rows={rows}
        maxLength={most}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        className="mt-1 w-full rounded-control border border-edge bg-card p-2.5"
      />
    </label>
  );
}
