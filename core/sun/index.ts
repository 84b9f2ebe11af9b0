export { afterSun, placeOf, sunAhead, sunDay, usualDuskMinute, type Place, type SunDay, type SunSpell } from './sun'
