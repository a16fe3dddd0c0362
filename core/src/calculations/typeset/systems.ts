import { type Listed, set, type Typeset } from './set.ts'

const life: Listed = ['L', 'mean life', 'its own unit']
const used: Listed = ['u', 'use so far', 'as L']
const spreadOfLives: Listed = ['c', 'spread of lives over their mean']
const gamma: Listed = ['Q', 'upper incomplete gamma ratio']
const current: Listed = ['I', 'current', 'A']
const effect: Listed = ['\\varepsilon', 'effectiveness of the core']
const units: Listed = ['N', 'transfer units']
const ratio: Listed = ['C_r', 'lesser stream over larger']
const least: Listed = ['C_{min}', 'lesser stream, heat for each K', 'W/K']
const heat: Listed = ['Q', 'heat', 'W']
const perK: Listed = ['k', 'heat carried for each K over the air', 'W/K']
const transfer: Listed = ['U_A', 'transfer of the core', 'W/K']

export const SYSTEMS_TYPESET: Readonly<Record<string, Typeset>> = {
  'parts.life-left': set(
    ['p = \\frac{Q(1/c^2,\\ (u + a)/(L c^2))}{Q(1/c^2,\\ u/(L c^2))}'],
    ['p', 'chance that it lasts'],
    gamma,
    spreadOfLives,
    used,
    ['a', 'what is to come', 'as L'],
    life,
  ),
  'parts.sets-needed': set(['Q(n/c^2,\\ A/(L c^2)) \\ge p'], gamma, ['n', 'sets'], spreadOfLives, ['A', 'what is wanted of all of them', 'as L'], life, [
    'p',
    'chance that they do',
  ]),
  'checks.due': set(
    ['u = \\frac{b + 0.5}{(n + 1) m}'],
    ['u', 'urgency among what is due', '1/min'],
    ['b', 'times it was bad'],
    ['n', 'times it was marked'],
    ['m', 'what it takes', 'min'],
  ),
  'cooling.fit': set(
    ['r = \\max_w \\min_k (S_k - s_k)'],
    ['r', 'least room that is left', 'm'],
    ['S_k', 'size of the space', 'm'],
    ['s_k', 'size of the part, that way round', 'm'],
    ['w', 'of six ways round'],
  ),
  'electrics.assign': set(
    ['\\min \\sum R', '\\max \\min\\left(1 - \\frac{\\sum I}{R}\\right)', '\\sum I \\le a R', '\\sum I + (k - 1) I_c \\le b R'],
    ['R', 'rating of an output that is used', 'A'],
    current,
    ['a', 'load share'],
    ['k', 'start over current'],
    ['I_c', 'the circuit that starts', 'A'],
    ['b', 'peak share'],
  ),
  'checks.round': set(['t = \\max_j \\sum_{i \\in j} m_i'], ['t', 'how long the round takes', 'min'], ['m_i', 'a check', 'min'], ['\\in', 'of person j']),
  'shakedown.plan': set(
    ['t = s + \\sum n_i f_i l + \\sum \\max(c_i,\\ r)'],
    ['t', 'what it takes', 's'],
    ['s', 'set-up', 's'],
    ['n_i', 'laps of a step'],
    ['f_i', 'how much longer its lap is'],
    ['l', 'a lap', 's'],
    ['c_i', 'cooling', 's'],
    ['r', 'round of checks between', 's'],
  ),
  'shakedown.go': set(
    ['X = x_2 + (x_2 - x_1) r', 'r = \\frac{p_3 - p_2}{p_2 - p_1}', 'S = s\\sqrt{(1 + r)^2 + r^2}'],
    ['X', 'reading at the next pace', 'as read'],
    ['x', 'reading', 'as read'],
    ['r', 'how far the next pace is'],
    ['p', 'pace, share of full pace'],
    ['S', 'spread of X', 'as read'],
    ['s', 'spread of a reading', 'as read'],
  ),
  'clearance.hot-gap': set(
    ['g = g_0 - \\alpha l \\Delta T q - m'],
    ['g', 'gap when hot; g_0 cold', 'm'],
    ['\\alpha', 'expansion', '1/K'],
    ['l', 'length that grows', 'm'],
    ['\\Delta T', 'how much hotter', 'K'],
    ['q', 'share towards the neighbour'],
    ['m', 'how far the engine rocks', 'm'],
  ),
  'electrics.first-to-trip': set(
    ['f = \\frac{I_t}{\\sum I}', 'p = \\Phi\\left(\\frac{\\sum I - I_t}{s}\\right)'],
    ['f', 'times the load at which it trips'],
    ['I_t', 'trip', 'A'],
    current,
    ['p', 'chance that it trips now'],
    ['\\Phi', 'normal distribution'],
    ['s', 'spread of the load', 'A'],
  ),
  'electrics.wire': set(
    ['\\Delta V = I\\left(\\frac{\\rho n l}{A} + R\\right)', '\\rho = \\rho_{20}(1 + \\alpha(t - t_{20}))'],
    ['\\Delta V', 'volts lost', 'V'],
    current,
    ['\\rho', 'resistivity of copper', 'Ω m'],
    ['n', 'ways: 2, by the chassis 1'],
    ['l', 'length one way', 'm'],
    ['A', 'cross section', 'm²'],
    ['R', 'joints', 'Ω'],
    ['\\alpha', 'rise with temperature', '1/K'],
    ['t', 'temperature', '°C'],
  ),
  'electrics.supply': set(
    ['\\bar I = \\sum I d', 'm = I_0 h - \\bar I', 'P = \\frac{V \\bar I}{\\eta}', 't = \\frac{60 q u}{\\bar I}'],
    ['\\bar I', 'mean current', 'A'],
    current,
    ['d', 'duty'],
    ['m', 'margin', 'A'],
    ['I_0', 'alternator’s rating', 'A'],
    ['h', 'share of it, hot or at idle'],
    ['P', 'taken from the belt', 'W'],
    ['V', 'volts', 'V'],
    ['\\eta', 'alternator’s efficiency'],
    ['t', 'on the battery alone', 'min'],
    ['q', 'battery', 'A h'],
    ['u', 'usable share'],
  ),
  'electrics.loom-mass': set(
    ['m = f \\rho \\sum A l n + m_c N'],
    ['m', 'mass', 'kg'],
    ['f', 'sleeves and connectors on top'],
    ['\\rho', 'density of copper', 'kg/m³'],
    ['A', 'cross section', 'm²'],
    ['l', 'length one way', 'm'],
    ['n', 'ways'],
    ['m_c', 'a connector', 'kg'],
    ['N', 'circuits'],
  ),
  'cooling.radiator': set(
    ['\\varepsilon = \\frac{Q}{C_{min} D}', '\\varepsilon = \\sum_{n} \\frac{P_n(N) P_n(C_r N)}{C_r N}', 'U_A = N C_{min}'],
    effect,
    heat,
    least,
    ['D', 'coolant in over air in', 'K'],
    ['P_n', 'lower incomplete gamma ratio of n'],
    ['n', 'term of the sum'],
    units,
    ratio,
    transfer,
  ),
  'cooling.settle': set(
    ['T_s = T_a + \\frac{Q}{k}', 'k = \\varepsilon C_{min}', 't = -\\tau \\ln\\frac{T_s - T_l}{T_s - T_0}'],
    ['T_s', 'where it settles', 'K'],
    ['T_a', 'air', 'K'],
    heat,
    perK,
    effect,
    least,
    ['t', 'time to the limit', 's'],
    ['\\tau', 'heat of coolant and metal over k', 's'],
    ['T_l', 'limit', 'K'],
    ['T_0', 'where it begins', 'K'],
  ),
  'cooling.cover': set(['T_w = T_a + \\frac{Q}{k(c)}'], ['T_w', 'wanted', 'K'], ['T_a', 'air', 'K'], heat, perK, ['c', 'share that is covered']),
}
