import { jarPage, recallPage } from '#server/services/shelf'

/** Every jar that what was bought in in this one went into. */
export default route((event, context) => {
  const id = idParam(event, 'jarId')
  jarPage(context, id)
  return recallPage(context, id)
})
