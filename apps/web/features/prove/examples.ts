import type { Dialect } from "@probe-lane/core/gcode";

/** Programs of the demo workshop, to see the page at work. */
export const EXAMPLES: readonly { readonly name: string; readonly dialect: Dialect; readonly text: string }[] = [
  {
    name: "focuser plate",
    dialect: "mill",
    text: `%
O2041 (focuser plate, slot)
G21 G17 G40 G49 G80 G90 G94
T1 M6 (end mill 10)
G54 G0 X-12. Y25. S2600 M3
G43 H1 Z40.
Z2.
G1 Z-5. F300
X122. F380
G0 Z40. M9
M5
G91 G28 Z0
G28 X0 Y0
G90
M30
%
`,
  },
  {
    name: "drawtube knob",
    dialect: "lathe",
    text: `%
O0916 (drawtube knob, outside and groove)
G21 G18 G40 G99
G28 U0 W0
T0101
G96 S160 M3
G0 X54. Z2.
Z0
G1 X-1.6 F.15
G0 Z2.
X44.
G1 Z-30. F.2
X53.
G28 U0 W0
T0303
G97 S700 M3
G0 X46. Z2.
Z-25.
G1 X40. F.06
G0 X54.
G28 U0 W0
M30
%
`,
  },
];
