const pathOf = (stroke: readonly number[]): string => {
  const points: string[] = [];
  for (let i = 0; i < stroke.length; i += 2) points.push(`${stroke[i]} ${stroke[i + 1]}`);
  // A point alone is a dot.
  return `M${points.join('L')}${points.length === 1 ? `L${points[0]}` : ''}`;
};

/** The lines of a drawing pad, within its drawing. */
export const Strokes = ({ of }: { readonly of: readonly (readonly number[])[] }) =>
  of.map((one, i) => (
    <path
      key={i}
      d={pathOf(one)}
      fill="none"
      stroke="currentColor"
      strokeWidth={5}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  ));
