export { Check, CircleX, Clock3, Diff as PlusMinus, Play } from 'lucide-react';
