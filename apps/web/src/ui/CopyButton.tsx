import { toast } from 'sonner';

/** Copies a text to the clipboard and confirms it. @param what noun for the confirmation: “The link” */
export function CopyButton({ text, what }: { text: string; what: string }) {
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      toast(`${what} is copied.`);
    } catch {
      toast.error('This browser does not let pages copy; select it and copy by hand.');
    }
  };
  return (
    <button type="button" className="link text-xs" onClick={() => void copy()}>
      Copy it
    </button>
  );
}
