export { Check, FileDown, Minus, Diff as PlusMinus, Printer, X } from 'lucide-react';
