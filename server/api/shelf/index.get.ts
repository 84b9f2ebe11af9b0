import { shelfPage } from '#server/services/shelf'

export default route((_, context) => shelfPage(context))
