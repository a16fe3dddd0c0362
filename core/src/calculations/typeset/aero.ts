import { type Listed, mass, power, set, type Typeset } from './set.ts'

const downforce: Listed = ['F', 'downforce of a device', 'N']
const drag: Listed = ['D', 'its drag', 'N']
const along: Listed = ['x', 'its place behind the front axle', 'm']
const up: Listed = ['z', 'its height', 'm']
const wheelbase: Listed = ['L', 'wheelbase', 'm']
const air: Listed = ['\\rho', 'density of the air', 'kg/m³']
const roadSpeed: Listed = ['v', 'speed', 'm/s']
const area: Listed = ['X', 'drag area', 'm²']
const rolling: Listed = ['C_{rr}', 'rolling resistance over weight']
const turning: Listed = ['m_e', 'mass with all that turns', 'kg']
const wind: Listed = ['w', 'wind along the road', 'm/s']
const wheelRate: Listed = ['k_w', 'rate at the wheel', 'N/m']
const springRate: Listed = ['k_s', 'rate of the spring', 'N/m']
const tyreRate: Listed = ['k_t', 'rate of the tyre', 'N/m']
const ratio: Listed = ['M', 'motion ratio, spring over wheel']
const pressure: Listed = ['w', 'pressure, or load by metre of width', 'Pa']
const reach: Listed = ['L', 'reach or span', 'm']
const thickness: Listed = ['t', 'thickness, of a skin in a sandwich', 'm']
const bending: Listed = ['D', 'bending stiffness by metre of width', 'N·m']
const shear: Listed = ['S', 'shear stiffness by metre of width', 'N/m']
const moment: Listed = ['M', 'moment by metre of width', 'N']
const deflection: Listed = ['\\delta', 'deflection', 'm']
const young: Listed = ['E', 'modulus', 'Pa']

/** How the calculations of aero and of its panels and mounts are set. */
export const AERO_TYPESET: Readonly<Record<string, Typeset>> = {
  'aero.forces': set(
    ['N_f = F\\left(1 - \\frac{x}{L}\\right) - \\frac{D z}{L}', 'N_r = \\frac{F x}{L} + \\frac{D z}{L}', 'B = \\frac{\\sum N_f}{\\sum N_f + \\sum N_r}'],
    ['N_f', 'on the front tyres', 'N'],
    ['N_r', 'on the rear tyres', 'N'],
    ['B', 'balance: share on the front'],
    downforce,
    drag,
    along,
    up,
    wheelbase,
  ),
  'build.aero-at-stage': set(
    ['V_n = V_k + \\sum d_n - \\sum d_k', 'u^2 = u_k^2 + \\sum u_i^2'],
    ['V_n', 'the sum at the stage', 'm²'],
    ['V_k', 'the same by a test of the whole car at a stage up to it', 'm²'],
    ['d_n', 'what a device does at the stage and did not at the test', 'm²'],
    ['d_k', 'what one did at the test and does not at the stage', 'm²'],
    ['u', 'spread of the sum', 'm²'],
    ['u_k', 'spread of the test', 'm²'],
    ['u_i', 'spread of each device that differs', 'm²'],
  ),
  'aero.finite-wing': set(
    [
      "a = \\frac{a_0 A'}{k + \\sqrt{A'^2 + k^2}}",
      "A' = A\\left(1 + 1.9\\frac{h}{b}\\right)",
      'C_L = a(\\alpha + \\varepsilon - \\alpha_0)',
      "C_D = c_{d0} + \\frac{C_L^2}{\\pi e A'}",
    ],
    ['a', 'slope of lift', '1/rad'],
    ['a_0', 'slope of the section', '1/rad'],
    ['k', 'a_0 over π'],
    ["A'", 'aspect ratio with end plates'],
    ['A', 'span over chord'],
    ['h', 'height of the end plates', 'm'],
    ['b', 'span', 'm'],
    ['\\alpha', 'angle it is set at', 'rad'],
    ['\\varepsilon', 'downwash of the car', 'rad'],
    ['\\alpha_0', 'angle of no lift', 'rad'],
    ['C_L', 'coefficient of downforce'],
    ['C_D', 'coefficient of drag'],
    ['c_{d0}', 'drag of the section'],
    ['e', 'how near the spread of load is to the best'],
  ),
  'aero.splitter': set(
    ['\\frac{F}{q} = \\Delta C_p\\, b\\, l'],
    downforce,
    ['q', 'pressure of the moving air', 'Pa'],
    ['\\Delta C_p', 'pressure difference over q'],
    ['b', 'width', 'm'],
    ['l', 'lip ahead of the bumper', 'm'],
  ),
  'aero.balance': set(
    ['F = \\frac{B T_0 - N_0}{1 - \\frac{x}{L} - \\frac{d z}{L} - B}'],
    downforce,
    ['B', 'wanted share on the front'],
    ['T_0', 'downforce of the others', 'm²'],
    ['N_0', 'what of it is on the front', 'm²'],
    ['d', 'drag over downforce of the device'],
    along,
    up,
    wheelbase,
  ),
  'aero.top-speed': set(['P = \\tfrac12\\rho\\, X\\, v^3 + C_{rr} m g v'], power, air, area, roadSpeed, rolling, mass, ['g', 'free fall', 'm/s²']),
  'aero.rule-box': set(['r = \\max(0,\\; e - s)'], ['r', 'reach', 'm'], ['e', 'edge of a device', 'm'], ['s', 'edge of the standard bodywork there', 'm']),
  'aero.wheel-rate': set(
    ['k_w = k_s M^2', 'k_r = \\frac{k_w k_t}{k_w + k_t}', 'f = \\frac{1}{2\\pi}\\sqrt{\\frac{k_r}{m}}', 'k_s = \\frac{G d^4}{8 D^3 n}'],
    wheelRate,
    springRate,
    ratio,
    ['k_r', 'with the tyre', 'N/m'],
    tyreRate,
    ['f', 'ride frequency', 'Hz'],
    ['m', 'sprung mass of the corner', 'kg'],
    ['G', 'shear modulus of the wire', 'Pa'],
    ['d', 'wire', 'm'],
    ['D', 'mean diameter of the coil', 'm'],
    ['n', 'turns that work'],
  ),
  'aero.ride-height': set(
    ['P(z) = k_s M^2 z + M_d\\, R(M_d z - g + p)', 'h = z + \\frac{P}{k_t}', 'P = \\frac{N}{2}'],
    ['P', 'force at a wheel', 'N'],
    ['z', 'travel of the wheel', 'm'],
    springRate,
    ratio,
    ['M_d', 'damper over wheel travel'],
    ['R', 'force of the bump rubber by its squeeze', 'N'],
    ['g', 'free gap', 'm'],
    ['p', 'packer', 'm'],
    ['h', 'how far the axle sinks', 'm'],
    tyreRate,
    ['N', 'downforce on the axle', 'N'],
  ),
  'aero.coastdown': set(
    ["m_e v' = -\\left(A + C (v + s w)^2 + s m g i\\right)", 'X = \\frac{2C}{\\rho}', 'C_{rr} = \\frac{A}{m g}'],
    turning,
    roadSpeed,
    ['A', 'rolling', 'N'],
    ['C', 'air', 'N/(m/s)²'],
    ['s', '+1 out, −1 back'],
    wind,
    mass,
    ['g', 'free fall', 'm/s²'],
    ['i', 'slope of the road'],
    area,
    air,
    rolling,
  ),
  'aero.coastdown-plan': set(
    ['r = \\frac{m_e}{2C}\\ln\\frac{A + C v_0^2}{A + C v_1^2}', 's_C^2 = \\sum_i\\sum_j K_i K_j c_{ij}'],
    ['r', 'road', 'm'],
    turning,
    ['A', 'rolling', 'N'],
    ['C', 'air', 'N/(m/s)²'],
    ['v_0', 'first speed', 'm/s'],
    ['v_1', 'last speed', 'm/s'],
    ['s_C', 'doubt of C by one pair', 'N/(m/s)²'],
    ['K_i', 'what a point of a run moves C by', 'N/(m/s)³'],
    ['K_j', 'the same of another point', 'N/(m/s)³'],
    ['c_{ij}', 'what both points share of gusts and reading', '(m/s)²'],
  ),
  'aero.measured-downforce': set(
    ['Y = \\frac{2}{\\rho}\\,\\frac{dN}{d(v^2)}', 'N = 2 P(z)'],
    ['Y', 'downforce area of an axle', 'm²'],
    air,
    ['N', 'downforce on the axle', 'N'],
    roadSpeed,
    ['P', 'force at a wheel', 'N'],
    ['z', 'travel of the wheel', 'm'],
  ),
  'aero.pitot': set(
    ['\\sqrt f = \\frac{\\sqrt{q_1} + \\sqrt{q_2}}{2 v\\sqrt{\\rho/2}}', 'w = v\\,\\frac{\\sqrt{q_1} - \\sqrt{q_2}}{\\sqrt{q_1} + \\sqrt{q_2}}'],
    ['f', 'reading over what stands ahead of the car'],
    ['q_1', 'reading out', 'Pa'],
    ['q_2', 'reading back', 'Pa'],
    roadSpeed,
    air,
    ['w', 'head wind out', 'm/s'],
  ),
  'aero.compare': set(
    ['t = \\frac{\\bar x_2 - \\bar x_1}{\\sqrt{s_1^2/n_1 + s_2^2/n_2}}'],
    ['t', 'difference over its spread'],
    ['\\bar x_1', 'mean of the first', 'as what it is of'],
    ['\\bar x_2', 'mean of the second', 'as what it is of'],
    ['s_1', 'spread of its pairs', 'as what it is of'],
    ['s_2', 'spread of its pairs', 'as what it is of'],
    ['n_1', 'pairs of the first'],
    ['n_2', 'pairs of the second'],
  ),
  'structure.strip': set(
    ['\\delta = \\frac{w L^4}{8 E I}', 'M = \\frac{w L^2}{2}', 'I = \\frac{t^3}{12}', '\\sigma = \\frac{6 M}{t^2}'],
    deflection,
    pressure,
    reach,
    young,
    ['I', 'second moment of area by metre of width', 'm³'],
    moment,
    thickness,
    ['\\sigma', 'stress', 'Pa'],
  ),
  'structure.sandwich': set(
    ['D = \\tfrac12 E_f t d^2 + \\tfrac16 E_f t^3 + \\tfrac1{12}E_c c^3', 'S = \\frac{G_c d^2}{c}', '\\delta = \\frac{5 w L^4}{384 D} + \\frac{w L^2}{8 S}'],
    bending,
    ['E_f', 'modulus of the skins', 'Pa'],
    thickness,
    ['d', 'core and a skin', 'm'],
    ['E_c', 'modulus of the core', 'Pa'],
    ['c', 'core', 'm'],
    shear,
    ['G_c', 'shear modulus of the core', 'Pa'],
    deflection,
    pressure,
    reach,
  ),
  'structure.strip-test': set(
    ['\\frac{\\delta}{F L} = \\frac{L^2}{48 D} + \\frac{1}{4 S}'],
    deflection,
    ['F', 'load in the middle by metre of width', 'N/m'],
    reach,
    bending,
    shear,
  ),
  'structure.choose-panel': set(
    ['\\sigma \\le \\sigma_a', '\\delta \\le \\delta_a', 'b = 0.1 + 2 r'],
    ['\\sigma', 'stress under the load factor', 'Pa'],
    ['\\sigma_a', 'what may be asked of the material', 'Pa'],
    deflection,
    ['\\delta_a', 'what may be bent', 'm'],
    ['b', 'width that a foot acts on', 'm'],
    ['r', 'how far it stands out', 'm'],
  ),
  'structure.mounts': set(
    ['R_1 = \\frac{F(x_2 - x) - D(z - z_2)}{x_2 - x_1}', 'R_2 = F - R_1', 'N_k = \\frac{\\pi^2 E I}{l^2}'],
    ['R_1', 'down at the front feet', 'N'],
    ['R_2', 'down at the rear feet', 'N'],
    downforce,
    drag,
    along,
    up,
    ['x_1', 'front foot', 'm'],
    ['x_2', 'rear foot', 'm'],
    ['z_2', 'height of the feet', 'm'],
    ['N_k', 'push at which a rod buckles', 'N'],
    young,
    ['I', 'second moment of area of the rod', 'm⁴'],
    ['l', 'length of the rod', 'm'],
  ),
}
