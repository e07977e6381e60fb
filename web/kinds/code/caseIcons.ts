export { Check, CircleDot, CircleX, Clock3, Diff as PlusMinus, Play, Square } from 'lucide-react';
