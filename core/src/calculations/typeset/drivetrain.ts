import { type Listed, mass, power, set, speed, type Typeset } from './set.ts'

const roadSpeed: Listed = ['v', 'road speed', 'm/s']
const ratio: Listed = ['i', 'ratio from crank to wheel']
const radius: Listed = ['r', 'rolling radius', 'm']
const torque: Listed = ['T', 'torque left at the wheels, at engine speed', 'N·m']
const force: Listed = ['F', 'drive force', 'N']
const resistance: Listed = ['R', 'resistance', 'N']
const grip: Listed = ['G', 'what the tyres hold', 'N']
const friction: Listed = ['\\mu', 'friction of the driven tyres']
const turning: Listed = ['m_e', 'mass with all that turns', 'kg']
const slideSpeed: Listed = ['V', 'speed of the rear axle', 'm/s']
const angle: Listed = ['B', 'angle of the slide', 'rad']
const load: Listed = ['N', 'load of the rear tyres', 'N']
const wheelSpeed: Listed = ['v_s', 'speed of the tyre’s tread', 'm/s']
const forceAngle: Listed = ['\\theta', 'force of the tyres from the wheel’s own direction', 'rad']
const reserve: Listed = ['q', 'power wanted in hand']

/** How the calculations of the drivetrain are set. */
export const DRIVETRAIN_TYPESET: Readonly<Record<string, Typeset>> = {
  'drivetrain.tyre': set(
    ['D = D_r + 2\\,W A', 'r = \\frac{U}{2\\pi}', 'U = 3.05\\,D'],
    ['D', 'diameter', 'm'],
    ['D_r', 'diameter of the rim', 'm'],
    ['W', 'width', 'm'],
    ['A', 'aspect'],
    radius,
    ['U', 'roll-out: one turn under load', 'm'],
  ),
  'drivetrain.speeds': set(
    ['v = \\frac{2\\pi r n}{60\\,i\\,(1 + \\kappa)}', 'n_2 = n_1\\frac{G_2}{G_1}'],
    roadSpeed,
    radius,
    speed,
    ratio,
    ['\\kappa', 'slip over road speed'],
    ['G_1', 'ratio of the gear that is left'],
    ['G_2', 'ratio of the next'],
  ),
  'drivetrain.tractive-effort': set(
    ['F = \\frac{T\\,i}{r}', 'R = c\\,(m g + q A) + q C', 'q = \\tfrac12\\rho v^2'],
    force,
    torque,
    ratio,
    radius,
    resistance,
    ['c', 'rolling'],
    mass,
    ['g', 'gravity', 'm/s²'],
    ['q', 'pressure of the air', 'Pa'],
    ['A', 'downforce area of both axles', 'm²'],
    ['C', 'drag area', 'm²'],
    ['\\rho', 'density of the air', 'kg/m³'],
    roadSpeed,
  ),
  'drivetrain.shift-points': set(
    ['\\frac{F_1 - R}{m_1} = \\frac{F_2 - R}{m_2}', 'F_1 = F_2', '\\frac{F_1}{m_1} = \\frac{F_2}{m_2}'],
    ['F_1', 'drive force in the gear', 'N'],
    ['F_2', 'drive force in the next, at the same road speed', 'N'],
    resistance,
    ['m_1', 'mass with what turns in the gear', 'kg'],
    ['m_2', 'the same in the next', 'kg'],
  ),
  'drivetrain.top-speed': set(['F(v) = R(v)', 'v = \\frac{2\\pi r n}{60\\,i}'], force, resistance, roadSpeed, radius, speed, ratio),
  'drivetrain.traction-limit': set(
    ['G = \\frac{\\mu\\,(W_r - R t)}{1 - \\mu t}', 'G = \\frac{\\mu\\,(W_f + R t)}{1 + \\mu t}', 't = \\frac{h}{L}'],
    grip,
    friction,
    ['W_r', 'load of the rear axle at rest', 'N'],
    ['W_f', 'load of the front axle at rest', 'N'],
    resistance,
    ['t', 'height over wheelbase'],
    ['h', 'height of the centre of mass', 'm'],
    ['L', 'wheelbase', 'm'],
  ),
  'drivetrain.grip-from-start': set(['t_{60}(\\mu) = t'], ['t_{60}', 'time over 60 ft by the car’s own sums', 's'], friction, ['t', 'time that was read', 's']),
  'drivetrain.quarter-mile-rule': set(
    ['t = c\\,\\sqrt[3]{\\frac{W}{P}}', 'v = d\\,\\sqrt[3]{\\frac{P}{W}}', 't_0 = \\sqrt[3]{\\frac{9 m x^2}{8 P}}'],
    ['t', 'time', 's'],
    ['c', 'constant of the rule for time'],
    ['W', 'mass ready to race', 'lb'],
    power,
    ['v', 'speed at the end', 'mph'],
    ['d', 'constant of the rule for speed'],
    ['t_0', 'floor', 's'],
    mass,
    ['x', 'quarter mile', 'm'],
  ),
  'drivetrain.accelerate': set(
    ['\\dot v = \\min\\left(\\frac{F - R}{m_e},\\,\\frac{G - R}{m}\\right)', 'm_e = m + \\frac{I_w + I_e i^2}{r^2}', 't = \\int \\frac{dv}{\\dot v}'],
    ['\\dot v', 'acceleration', 'm/s²'],
    force,
    resistance,
    turning,
    grip,
    mass,
    ['I_w', 'inertia of all wheels', 'kg·m²'],
    ['I_e', 'inertia of the engine', 'kg·m²'],
    ratio,
    radius,
    ['t', 'time', 's'],
    roadSpeed,
  ),
  'drivetrain.torque-path': set(
    ['M = \\min(k T_c,\\,M_k)', 'M_a = \\min(M i \\eta,\\,G r)', 'M_s = s M_a'],
    ['M', 'engine side at the crank', 'N·m'],
    ['k', 'shock'],
    ['T_c', 'greatest torque at the crank', 'N·m'],
    ['M_k', 'what the clutch lets through', 'N·m'],
    ['M_a', 'axle', 'N·m'],
    ratio,
    ['\\eta', 'what is left at the wheels'],
    grip,
    radius,
    ['M_s', 'one shaft', 'N·m'],
    ['s', 'share of one shaft'],
  ),
  'build.yardsticks-at-stage': set(
    ['V = V_k\\frac{c}{c_k}', 'u^2 = \\sum u_i^2 + u_m^2'],
    ['V', 'yardstick of the stage', 's or m/s'],
    ['V_k', 'the same as it was read at an earlier stage', 's or m/s'],
    ['c', 'worked out for the stage', 's or m/s'],
    ['c_k', 'worked out for the earlier one', 's or m/s'],
    ['u', 'spread of what is worked out'],
    ['u_i', 'half the difference of two runs with one number moved'],
    ['u_m', 'spread of the sums themselves'],
  ),
  'drivetrain.used-band': set(
    ['t(n_5) = 0.05\\,t', 't(n_{95}) = 0.95\\,t'],
    ['t', 'full-throttle time', 's'],
    ['n_5', 'lower end', 'rpm'],
    ['n_{95}', 'upper end', 'rpm'],
  ),
  'drivetrain.final-drive': set(
    ['t = \\sum t_k', '\\Delta t \\le \\max(0.05,\\,2 s)'],
    ['t', 'time of the course', 's'],
    ['t_k', 'time of a straight', 's'],
    ['\\Delta t', 'behind the best', 's'],
    ['s', 'spread of that difference', 's'],
  ),
  'drivetrain.slide': set(
    ['v_s = V\\cos B + \\frac{V\\sin B}{\\tan\\theta}', 'P = (\\mu N\\cos\\theta + c N)\\,v_s', '\\omega = \\frac{\\mu N\\sin\\theta\\,L}{m a V\\cos B}'],
    wheelSpeed,
    slideSpeed,
    angle,
    forceAngle,
    power,
    friction,
    load,
    ['c', 'rolling'],
    ['\\omega', 'yaw rate', 'rad/s'],
    ['L', 'wheelbase', 'm'],
    mass,
    ['a', 'centre of mass behind the front axle', 'm'],
  ),
  'drivetrain.drift-hold': set(
    ['F_x = \\mu N\\frac{v_s - V_x}{s}', 'F_y = \\mu N\\frac{V_y}{s}', 'P = (F_x + F_r)\\,v_s'],
    ['F_x', 'drive force', 'N'],
    ['F_y', 'side force', 'N'],
    friction,
    load,
    wheelSpeed,
    ['V_x', 'speed along the wheel', 'm/s'],
    ['V_y', 'speed across it', 'm/s'],
    ['s', 'speed at which the tyre slides', 'm/s'],
    power,
    ['F_r', 'rolling', 'N'],
  ),
  'drivetrain.slide-levers': set(['f = \\frac{1 + q}{1 + k}'], ['f', 'times the power'], reserve, ['k', 'power in hand today']),
  'drivetrain.slide-link': set(['P(n) \\ge (1 + q)\\,P_0'], power, speed, reserve, ['P_0', 'power that a corner needs', 'W']),
}
