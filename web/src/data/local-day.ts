import { format } from 'date-fns'

/** The day it is where the page is looked at. */
export const localDay = (): string => format(new Date(), 'yyyy-MM-dd')
