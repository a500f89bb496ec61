import type { AuditEvent } from '../api/generated';

/** What happened, in words. */
export const eventWords: Record<AuditEvent, string> = {
  signedIn: 'Signed in',
  signInFailed: 'Wrong password',
  signInSlowedDown: 'Too many wrong passwords: slowed down',
  signedOut: 'Signed out',
  sessionEnded: 'Signed out elsewhere',
  tokenMade: 'Made a token',
  tokenRevoked: 'Took a token back',
  recordTypeBegun: 'Began a record type',
  published: 'Published',
  rulesExported: 'Took rules out',
  rulesImported: 'Brought rules in',
  recordsExported: 'Took records out',
  recordsImported: 'Brought records in',
  importTakenBack: 'Took back what had come in',
  personInvited: 'Invited a person',
  accountChanged: 'Changed an account',
  accountDisabled: 'Disabled an account',
  passwordLinkMade: 'Made a password link',
  accountEnabled: 'Let a person in again',
  passwordSet: 'Set a password by a link',
  draftEdited: 'Edited a draft',
  viewShared: 'Shared a view',
  viewWithdrawn: 'Withdrew a shared view',
  auditExported: 'Took the audit trail out',
};
