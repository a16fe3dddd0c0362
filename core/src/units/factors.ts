/** Units in SI: exact by definition, or as stated. */
export const LB_KG = 0.45359237 // exact, international yard and pound agreement 1959
export const HP_W = 745.6998715822702 // 550 ft·lbf/s from the exact foot, pound and g = 9.80665 m/s² (NIST SP 811)
export const PS_W = 735.49875 // 75 kgf·m/s, exact
export const LBF_N = 4.4482216152605 // exact: the pound times standard gravity
export const LBFT_NM = 1.3558179483314003 // exact product, NIST SP 811
export const INCH_M = 0.0254 // exact
export const PSI_PA = 6894.757293168361
