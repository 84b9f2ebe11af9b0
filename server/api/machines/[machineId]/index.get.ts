import { machinePage } from '#server/services/machines'

export default route((event, context) => machinePage(context, idParam(event, 'machineId')))
