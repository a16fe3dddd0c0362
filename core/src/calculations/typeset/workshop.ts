import { type Listed, set, type Typeset } from './set.ts'

const guess: Listed = ['g', 'guess', 'h, days or money']
const real: Listed = ['x', 'what it came to', 'as the guess']
const middle: Listed = ['\\mu', 'how guesses run, middle of ln(x/g)']
const own: Listed = ['s', 'spread of it from one to another']
const doubt: Listed = ['v', 'doubt in the middle, s²/n']
const done: Listed = ['w', 'done so far', 'h or days']
const long: Listed = ['T', 'how long it is', 'h or days']
const start: Listed = ['t', 'when it may begin', 'h']
const price: Listed = ['C', 'price', 'money']
const change: Listed = ['\\Delta m', 'change of mass', 'kg']

export const WORKSHOP_TYPESET: Readonly<Record<string, Typeset>> = {
  'jobs.time-bias': set(
    ['r = \\ln\\frac{x}{g}', '\\mu = \\bar r,\\quad v = \\frac{s^2}{n}', '\\bar x = g\\exp\\left(\\mu + \\tfrac{s^2}{2} + \\tfrac{v}{2}\\right)'],
    guess,
    real,
    ['r', 'how far off a guess was'],
    middle,
    own,
    doubt,
    ['n', 'pairs'],
  ),
  'jobs.schedule': set(
    ['t = \\max(0,\\ e_j,\\ 24 d_p,\\ 24 d_0)', 'T = g\\exp\\left(\\mu + \\sqrt v\\, z_k + s z\\right)', '\\int_t^{e} f(\\tau)\\,d\\tau = T'],
    start,
    ['e', 'when it ends; of what it comes after', 'h'],
    ['d_p', 'day its parts are here'],
    ['d_0', 'day it cannot begin before'],
    long,
    guess,
    middle,
    own,
    doubt,
    ['z', 'draw of its own; z_k shared by its kind'],
    ['f', '1 where all its hands and what it holds are free, else 0'],
    ['\\tau', 'time', 'h'],
  ),
  'jobs.hours-left': set(
    [
      '\\bar T = \\exp\\left(m + \\tfrac{\\sigma^2}{2}\\right)\\frac{\\Phi\\left((m + \\sigma^2 - \\ln w)/\\sigma\\right)}{\\Phi\\left((m - \\ln w)/\\sigma\\right)}',
      'h = \\bar T - w',
    ],
    long,
    done,
    ['m', 'ln g + μ'],
    ['\\sigma', 'root of s² + v'],
    ['\\Phi', 'normal distribution'],
    ['h', 'left', 'h'],
  ),
  'jobs.slip': set(
    ['\\Delta = R(k) - R(0)', 'k^* = \\max\\{k : R(k) = R(0)\\}'],
    ['R', 'when all is ready', 'h'],
    ['k', 'later by', 'days'],
    ['\\Delta', 'what it does to the day', 'h'],
  ),
  'cost.stage': set(
    [
      'C = C_p + \\sum C_c + \\sum g\\exp\\left(\\mu + \\tfrac{s^2}{2} + \\tfrac{v}{2}\\right)',
      '\\sigma^2 = \\sum (0.05\\,C_c)^2 + \\sum_{ij} m_i m_j \\left(\\exp\\left(v + s^2 [i=j]\\right) - 1\\right)',
    ],
    ['C', 'what it comes to; paid p, out of a catalogue c', 'money'],
    guess,
    middle,
    own,
    doubt,
    ['\\sigma', 'its spread', 'money'],
    ['m', 'a guess put right', 'money'],
  ),
  'cost.worth': set(
    ['K = C + h w', '\\frac{K}{-\\Delta m}', '\\frac{1000\\,K}{\\Delta P - \\frac{P}{m}\\Delta m}', '\\frac{K}{-\\Delta t}'],
    ['K', 'whole price', 'money'],
    price,
    ['h', 'hours', 'h'],
    ['w', 'what an hour is worth', 'money/h'],
    change,
    ['P', 'power', 'W'],
    ['\\Delta P', 'change of power', 'W'],
    ['m', 'mass of the car', 'kg'],
    ['\\Delta t', 'change of the lap', 's'],
  ),
  'decision.compare': set(
    ['S = \\sum p\\,x', '\\sigma = \\sqrt{\\sum (p\\,\\sigma_x)^2}', "p' = p - \\frac{S_b - S_a}{\\delta}"],
    ['S', 'total of an option; more of what is better counts against it', 'money'],
    ['p', 'price of one unit', 'money'],
    ['\\sigma', 'spread', 'as what it is of'],
    ['\\delta', 'how much more the other option has; turned round where more is better'],
  ),
  'rules.average-power': set(
    ['P = \\frac{\\sum w\\, P(n_0 + o)}{\\sum w}', 'P = \\frac{1}{n_2 - n_1}\\int_{n_1}^{n_2} P(n)\\,dn'],
    ['P', 'power', 'W'],
    ['w', 'weight of a point'],
    ['n', 'engine speed; 0 of the peak or a given one, 1 and 2 of a range', 'rpm'],
    ['o', 'how far off a point lies', 'rpm'],
  ),
  'rules.ratio': set(
    ['r = \\frac{m}{P} + \\sum c', '\\sigma = \\sqrt{\\left(\\frac{\\sigma_m}{P}\\right)^2 + \\left(\\frac{m\\,\\sigma_P}{P^2}\\right)^2}'],
    ['r', 'ratio', 'kg/W'],
    ['m', 'mass as the rule counts it', 'kg'],
    ['P', 'power as the rule averages it', 'W'],
    ['c', 'modifiers that apply', 'kg/W'],
    ['\\sigma', 'spread', 'as what it is of'],
  ),
  'rules.margin': set(
    ['k = (L - c) P - m', 'q = P - \\frac{m}{L - c}', 'm = m_r - D - (F_r - F)\\rho'],
    ['k', 'mass to add', 'kg'],
    ['q', 'power to give up', 'W'],
    ['L', 'least ratio', 'kg/W'],
    ['c', 'modifiers that apply', 'kg/W'],
    ['P', 'power', 'W'],
    ['m', 'mass as the rule counts it; r at the reference', 'kg'],
    ['D', 'driver, where the rule leaves him out', 'kg'],
    ['F', 'fuel; r at the reference', 'L'],
    ['\\rho', 'density of the fuel', 'kg/L'],
  ),
  'rules.class-change': set(
    ['B_1 \\setminus B_2', 'B_2 \\setminus B_1'],
    ['B_1', 'what the first book forbids: less the next, freed'],
    ['B_2', 'what the next book forbids: less the first, lost'],
  ),
  'rules.noise': set(['L_2 = L_1 - 20\\log\\frac{d_2}{d_1}'], ['L', 'sound level', 'dB'], ['d', 'distance', 'm']),
}
