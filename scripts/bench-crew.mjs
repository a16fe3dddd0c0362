// What signing in costs: part of the bench, run last, because from the first owner on everybody signs in.
import { readFileSync } from 'node:fs'
import { performance } from 'node:perf_hooks'

const PASSWORD = 'four words do it'
const TICK_MS = 10
const pause = (ms) => new Promise((done) => setTimeout(done, ms))

/** Milliseconds of processor that a process took so far, its threads with it. */
function cpuMs(pid) {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').pop().split(' ')
  return (Number(fields[11]) + Number(fields[12])) * TICK_MS
}

/**
 * @param tools how to ask (`request`), to note a row (`put`, `putTimes`), the server's process and the browser, where there is one
 */
export async function benchCrew({ address, pid, build, stageId, newLine, put, putTimes, times, browser }) {
  let cookie = ''
  const ask = async (method, route, body, headers = {}) => {
    const answer = await fetch(`${address}/api${route}`, {
      method,
      headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin', ...(cookie ? { cookie } : {}), ...headers },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
    if (!answer.ok) throw new Error(`${route}: ${answer.status} ${await answer.text()}`)
    const [set] = answer.headers.getSetCookie()
    if (set) cookie = set.split(';')[0]
    return answer
  }
  const board = () => ask('GET', `/builds/${build.id}/board`).then((answer) => answer.text())
  const LOOKS = 400
  const boardTimes = async () => {
    for (let i = 0; i < 50; i++) await board()
    const from = cpuMs(pid)
    const list = await times(LOOKS, board)
    return { list, cpu: (cpuMs(pid) - from) / LOOKS }
  }
  const open = await boardTimes()
  const owner = await (await ask('POST', '/owner', { name: 'Ilse', login: 'ilse', password: PASSWORD })).json()
  await pause(1100)
  const closed = await boardTimes()
  putTimes('GET board, signed in', closed.list, 'p95 < 50')
  put('  processor for it, of that of open mode', (closed.cpu / open.cpu).toFixed(2), '', '<= 1.3', 'x')
  const signIns = []
  const begun = performance.now()
  for (let i = 0; i < 25; i++) {
    await pause(Math.max(0, begun + i * 200 - performance.now()))
    signIns.push(...(await times(1, () => ask('POST', '/sign-in', { login: 'ilse', password: PASSWORD }))))
  }
  putTimes('sign-in, 5 a second', signIns, 'p95 < 150')
  await ask('POST', '/code', { password: PASSWORD, code: '4711' })
  putTimes('hand-over by a code', await times(10, () => ask('POST', '/hand-over', { personId: owner.person.id, code: '4711' })), '< 200')
  if (!browser) return
  const { token } = await (await ask('POST', `/garages/${owner.garages[0].garageId}/invitations`, { role: 'crew' })).json()
  cookie = ''
  await ask('POST', '/join', { token, name: 'Tomas', login: 'tomas', password: PASSWORD })
  await onScreen({ address, build, stageId, newLine, putTimes, browser, ask })
}

/** From another's write to its name on a page that is looked at. */
async function onScreen({ address, build, stageId, newLine, putTimes, browser, ask }) {
  const context = await browser.newContext()
  const page = await context.newPage()
  await page.goto(address)
  await page.getByLabel('Sign-in name').fill('ilse')
  await page.getByLabel('Password').fill(PASSWORD)
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: /change hands/ }).waitFor()
  await page.goto(`${address}/builds/${build.id}/log`)
  await page.getByRole('heading', { level: 1 }).waitFor()
  await pause(3000)
  const seen = []
  for (let i = 0; i < 10; i++) {
    const name = `from elsewhere ${i}`
    const from = performance.now()
    await ask('POST', `/builds/${build.id}/changes`, newLine(stageId, name))
    await page.getByText(name).first().waitFor()
    seen.push(performance.now() - from)
  }
  putTimes('another’s write on my screen, from its request on', seen, 'p95 < 1000')
  await context.close()
}
