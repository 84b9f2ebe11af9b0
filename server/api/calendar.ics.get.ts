import { calendar } from '#server/export/calendar'

export default route((event, context) => {
  setResponseHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setResponseHeader(event, 'content-disposition', 'inline; filename="dulse.ics"')
  return calendar(context, getRequestURL(event).origin)
})
