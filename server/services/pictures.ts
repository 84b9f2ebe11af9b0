import type { PictureAnswer } from '#shared/contracts'
import type { PictureRow } from '#server/db/pictures'

/** Pictures as pages show them. */
export const pictureAnswers = (rows: readonly PictureRow[]): PictureAnswer[] =>
  rows.map(({ id, at, body: { picture, shows, text, colour }, ...place }) => ({ entryId: id, picture, at, shows, text, colour, ...place }))
