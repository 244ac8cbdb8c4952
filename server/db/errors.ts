/** The thing asked for does not exist (or was deleted). */
export class NotFound extends Error {
  constructor(what: string) {
    super(`This ${what} does not exist, or was deleted.`)
    this.name = 'NotFound'
  }
}

/** Saved elsewhere in the meantime. */
export class Conflict extends Error {
  constructor(readonly revision: number) {
    super(
      'It was changed elsewhere since you opened it. Nothing of yours was lost: choose which version to keep.',
    )
    this.name = 'Conflict'
  }
}

/** A request that cannot be carried out, with the field it is about. */
export class Refused extends Error {
  constructor(
    message: string,
    readonly field?: string,
  ) {
    super(message)
    this.name = 'Refused'
  }
}

/** The database server is not there, or went away before anything was written. */
export class DatabaseAway extends Error {
  constructor(why: string) {
    super(`The database server does not answer (${why}). Nothing was changed.`)
    this.name = 'DatabaseAway'
  }
}

/** The database server went away in the moment of writing. */
export class NotKnown extends Error {
  constructor() {
    super(
      'The database server went away while this was being written: it is not known whether it was. Redpoll asks again.',
    )
    this.name = 'NotKnown'
  }
}
