/** Somebody's initials in a ring. */
export function Avatar({ name, initials, ring }: { name: string; initials: string; ring?: string }) {
  return (
    <span
      title={name}
      className="w-6 h-6 rounded-full border bg-base-100 text-[10px] font-semibold inline-flex items-center justify-center shrink-0"
      style={ring ? { borderColor: ring, borderWidth: 2 } : { borderColor: 'var(--color-base-content)' }}
    >
      <span aria-hidden>{initials}</span>
      <span className="sr-only">{name}</span>
    </span>
  );
}

/** Ring styles of people, distinct also by pattern on the board: named by their initials, never by colour alone. */
const RINGS = ['#1f6a73', '#87590a', '#55652e', '#7a4b8c', '#3d5a99', '#8c3f5a'] as const;

/** A ring for a person, the same on every page. */
export function ringOf(id: string): string {
  let hash = 0;
  for (const letter of id) hash = (hash * 31 + letter.charCodeAt(0)) % 9973;
  return RINGS[hash % RINGS.length] ?? RINGS[0];
}
