// npm run build: installs what is missing and builds server and web, for npm run serve.
import { buildAll, installPackages } from './install.mjs'
import { endWith } from './settings.mjs'

try {
  installPackages()
  buildAll()
} catch (error) {
  endWith(error)
}
