/** From the most rights to the least. */
export const ROLES = ['owner', 'planner', 'builder', 'viewer'] as const;
export type Role = (typeof ROLES)[number];
/** Whether a role has at least the rights of another. */
export const isAtLeast = (role: Role, least: Role): boolean => ROLES.indexOf(role) <= ROLES.indexOf(least);
