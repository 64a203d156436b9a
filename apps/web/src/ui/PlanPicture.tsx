/** A plan drawn by the core, shown as a picture: nothing in it is run. Its paper is light by night too. */
export const PlanPicture = ({ svg, alt }: { svg: string; alt: string }) => (
  <img
    className="w-full bg-[#faf8f3] border hair"
    src={`data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`}
    alt={alt}
  />
);
