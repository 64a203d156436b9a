/** In, out, and the whole display: for those who have no wheel and no keys at hand. */
export function ZoomButtons({ onZoom, onFit }: { onZoom: (factor: number) => void; onFit: () => void }) {
  return (
    <div className="absolute right-7 bottom-20 flex flex-col border hair bg-base-100">
      {[
        { sign: '+', word: 'Zoom in', act: () => onZoom(1.25) },
        { sign: '−', word: 'Zoom out', act: () => onZoom(0.8) },
        { sign: '0', word: '0: fit the whole display', act: onFit },
      ].map(({ sign, word, act }) => (
        <button
          key={sign}
          type="button"
          className="btn btn-xs btn-ghost btn-square fig"
          aria-label={word}
          title={word}
          onClick={act}
        >
          {sign}
        </button>
      ))}
    </div>
  );
}
