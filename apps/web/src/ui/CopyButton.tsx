import { toast } from 'sonner';

/** Puts a text into the clipboard and says so. @param what it is, as the words after say it: «The link» */
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
