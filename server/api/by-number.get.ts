import { numberQuery } from '#shared/contracts'
import { idOfNumber } from '#server/services/shelf'

export default route((event, context) => idOfNumber(context, readQuery(event, numberQuery)))
