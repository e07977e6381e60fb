export { Check, FileDown, MessageCircleQuestion, Minus, Diff as PlusMinus, Printer, X } from 'lucide-react';
