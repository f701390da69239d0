import * as v from 'valibot';

/** What a person may do in an account; each role may also do what those before it may. */
export const ROLES = ['look', 'prepare', 'send', 'own'] as const;
export type Role = (typeof ROLES)[number];

/** `none` is the role of somebody who worked here once, and may not even look. */
export const MEMBER_ROLES = ['none', ...ROLES] as const;
export type MemberRole = (typeof MEMBER_ROLES)[number];
export const MemberRoleSchema = v.picklist(MEMBER_ROLES, 'A role is none, look, prepare, send or own.');

/** What is said of somebody who has a role. */
export const ROLE_NAMES: Record<MemberRole, string> = {
  none: 'is no longer here',
  look: 'may look',
  prepare: 'may prepare',
  send: 'may send',
  own: 'owns the account',
};

/** Whether somebody with a role may do what needs another. @example mayDo('send', 'prepare') // true */
export function mayDo(role: MemberRole, needed: Role): boolean {
  return MEMBER_ROLES.indexOf(role) >= MEMBER_ROLES.indexOf(needed);
}

/** A person, and what he or she may do in an account. */
export const MemberSchema = v.strictObject({ id: v.number(), name: v.string(), role: MemberRoleSchema });
export type Member = v.InferOutput<typeof MemberSchema>;
