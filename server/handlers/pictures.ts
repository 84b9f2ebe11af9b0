import { pictureName } from '#core/log'
import { refuse } from '#core/errors'
import { ROUTES } from '#shared/api'
import { picturesOfFood } from '#server/db/pictures'
import { findPicture, savePicture } from '#server/pictures/store'
import { pictureAnswers } from '#server/services/pictures'
import { NotFound } from '#server/services/refusals'
import type { Handlers } from '../utils/route'

/** Pictures of a gallery: nobody looks through more at once. */
const MOST_SHOWN = 120

/** Pictures: their bytes, and whose they are. */
export const pictures = {
  savePicture: async ({ context, event }) => {
    const { takes, mostKb } = ROUTES.savePicture
    if (!takes.some(type => type === (getRequestHeader(event, 'content-type') ?? '').split(';')[0]))
      refuse('content-type', 'not-a-picture', `Send the picture’s bytes as ${takes.join(' or ')}.`)
    const bytes = await readBytes(event, mostKb)
    return { name: savePicture(context.db, bytes), bytes: bytes.length }
  },
  picture: ({ context, event, params }) => {
    const found = pictureName.safeParse(params.picture).success && findPicture(context.db, params.picture)
    if (!found) throw new NotFound('picture', 'There is no such picture: it may be in a copy or a backup of this logbook.')
    giveFile(event, found.type)
    // Under this name there is never another.
    setResponseHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
    return found.bytes
  },
  foodPictures: ({ context, params }) => pictureAnswers(picturesOfFood(context.db, params.foodKey, MOST_SHOWN)),
} satisfies Partial<Handlers>
