/** What comes into the plan and goes out of it. */
export function Exchange() {
  return null;
}
