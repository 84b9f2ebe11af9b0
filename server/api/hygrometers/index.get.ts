import { hygrometerList } from '#server/services/hygrometers'

export default route((_, context) => hygrometerList(context))
