import * as z from 'zod'

// Before any schema is made: zod otherwise probes `new Function`, which the content security policy reports.
z.config({ jitless: true })

export { z }
