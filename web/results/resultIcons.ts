export {
  Check,
  FileDown,
  MessageCircleQuestion,
  Minus,
  Diff as PlusMinus,
  Printer,
  StickyNote,
  X,
} from 'lucide-react';
