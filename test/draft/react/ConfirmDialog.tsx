import { createPortal } from 'react-dom';

interface ConfirmDialogProps {
  isOpen: boolean;
  question: string;
  onAnswer: (yes: boolean) => void;
}

export function ConfirmDialog({ isOpen, question, onAnswer }: ConfirmDialogProps) {
  if (!isOpen) return null;
  return createPortal(
    <div role="dialog" aria-label="Please confirm">
      <p>{question}</p>
      <button onClick={() => onAnswer(true)}>Yes</button>
      <button onClick={() => onAnswer(false)}>No</button>
    </div>,
    document.body,
  );
}
