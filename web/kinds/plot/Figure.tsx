import { missingOf } from '../../../core/kinds/plot/candidate';
import type { Drawn, ObjectShown, PlotShown } from '../../../core/kinds/plot/response';
import { endsOf, pointsText, sideOf, spotOf, tallOf, type Spot } from './geometry';

export type Look = 'current' | 'other' | 'meant';

const STROKE: Readonly<Record<Look, string>> = {
  current: 'stroke-kelp',
  other: 'stroke-filled',
  meant: 'stroke-kelp',
};
const FILL: Readonly<Record<Look, string>> = {
  current: 'fill-kelp/12',
  other: 'fill-filled/12',
  meant: 'fill-none',
};

interface Props {
  readonly shown: PlotShown;
  readonly object: ObjectShown;
  readonly drawn: Drawn;
  readonly look: Look;
  /** A pixel in the measure of the plane. */
  readonly unit: number;
}

interface Stretch extends Pick<Props, 'look' | 'unit'> {
  readonly a: Spot;
  readonly b: Spot;
  readonly dashed: boolean;
}

function Between({ a, b, look, dashed, unit }: Stretch) {
  return (
    <line
      x1={a.x}
      y1={a.y}
      x2={b.x}
      y2={b.y}
      className={STROKE[look]}
      strokeWidth={3 * unit}
      strokeDasharray={dashesOf(look, dashed, unit)}
      strokeLinecap="round"
    />
  );
}

/** What was meant is dotted, so that it is not told by colour alone; a border that does not belong to it is dashed. */
const dashesOf = (look: Look, dashed: boolean, unit: number): string | undefined => {
  if (look === 'meant') return `${0.5 * unit} ${6 * unit}`;
  return dashed ? `${9 * unit} ${7 * unit}` : undefined;
};

/** What the points of an object make: a line, a side, a shape. */
function Body({ shown, object, drawn, look, unit }: Props) {
  const spots = drawn.points.map((place) => spotOf(shown, place));
  const tall = tallOf(shown);
  const [a, b] = spots;
  if (object.sort === 'polygon')
    return drawn.closed ? (
      <polygon
        points={pointsText(spots)}
        className={`${STROKE[look]} ${FILL[look]}`}
        strokeWidth={3 * unit}
      />
    ) : (
      <polyline points={pointsText(spots)} className={`fill-none ${STROKE[look]}`} strokeWidth={3 * unit} />
    );
  const waits = missingOf(object, { ...drawn, side: drawn.side ?? ['0', '0'] }) !== null;
  if (object.sort === 'point' || object.sort === 'points' || !a || !b || waits) return null;
  if (object.sort === 'segment') return <Between a={a} b={b} look={look} unit={unit} dashed={false} />;
  const [from, to] = endsOf(a, b, tall, object.sort === 'ray');
  const inside = drawn.side && spotOf(shown, drawn.side);
  return (
    <>
      {object.sort === 'half-plane' && inside && (
        <polygon
          points={pointsText(sideOf(a, b, inside, tall))}
          className={look === 'meant' ? 'fill-kelp/8' : FILL[look]}
        />
      )}
      <Between
        a={from}
        b={to}
        look={look}
        unit={unit}
        dashed={object.sort === 'half-plane' && drawn.boundary === 'dashed'}
      />
    </>
  );
}

/** One named object as it was drawn. The current one has ringed points, so that it is not told by colour alone. */
export function Figure({ shown, object, drawn, look, unit }: Props) {
  const spots = drawn.points.map((place) => spotOf(shown, place));
  const last = spots.at(-1);
  return (
    <g>
      <Body shown={shown} object={object} drawn={drawn} look={look} unit={unit} />
      {spots.map(({ x, y }, i) => (
        <g key={i}>
          {look === 'current' && (
            <circle cx={x} cy={y} r={9 * unit} className="fill-card stroke-kelp" strokeWidth={2 * unit} />
          )}
          <circle cx={x} cy={y} r={4.5 * unit} className={look === 'other' ? 'fill-filled' : 'fill-kelp'} />
        </g>
      ))}
      {last && (
        <text
          x={Math.min(last.x + 10 * unit, 100 - 8 * object.text.length * unit)}
          y={Math.max(last.y - 10 * unit, 12 * unit)}
          fontSize={14 * unit}
          className={`font-semibold ${look === 'other' ? 'fill-filled' : 'fill-kelp'}`}
        >
          {object.text}
        </text>
      )}
    </g>
  );
}
