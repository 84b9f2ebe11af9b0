import { shelfPlaces } from '#server/services/shelf'

export default route((_, context) => shelfPlaces(context))
