import { listTools } from '#server/db/tools'

export default route((_, context) => listTools(context.db))
