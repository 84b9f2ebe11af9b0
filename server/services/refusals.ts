import type { Problem } from '#core/errors'

/** There is nothing under this id. */
export class NotFound extends Error {
  constructor(
    readonly field: string,
    message: string,
  ) {
    super(message)
    this.name = 'NotFound'
  }
}

/** More at once than the disk takes, or more tries than are allowed. */
export class TooFast extends Error {
  constructor(
    message: string,
    readonly field = 'readings',
  ) {
    super(message)
    this.name = 'TooFast'
  }
}

/** Nobody known asks. */
export class SignInFirst extends Error {
  constructor() {
    super('Sign in first: with the household’s passphrase, or a code from a keeper.')
    this.name = 'SignInFirst'
  }
}

/** Whoever asks is known, and may not. */
export class NotAllowed extends Error {}

/** The same id with other content, or an edit of a version that is not the newest. */
export class Conflict extends Error {
  constructor(
    message: string,
    readonly problems: readonly Problem[] = [],
  ) {
    super(message)
    this.name = 'Conflict'
  }
}

/** The logbook's file is damaged: nothing more is written to it, and no copy of it is handed out. */
export class Damaged extends Error {}
