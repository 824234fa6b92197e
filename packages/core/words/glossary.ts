/** The words that coach and bench use, each in a sentence that uses none of the others before it is explained. */
export const glossary = [
  { word: "click", means: "One step of a hand wheel. How far it goes is chosen beside it; ten of them go with Shift." },
  { word: "spindle", means: "What turns. On a mill it carries the tool, on a lathe the part." },
  { word: "chuck, jaws", means: "What grips the part: jaws in a turning chuck on a lathe, jaws of a vise on a mill." },
  {
    word: "fixed jaw",
    means: "The jaw that does not move when the vise is shut. A part against it lies where the last one lay.",
  },
  {
    word: "parallels",
    means: "Two bars of equal height under the part, so that it lies level and stands out of the jaws.",
  },
  { word: "stop", means: "What the part is pushed against sideways, so that the next one lies where this one lies." },
  { word: "blank", means: "The part before it is cut." },
  {
    word: "burr",
    means: "A ragged rim that a saw or a cutter leaves on an edge. It stands out, and is touched before the true face.",
  },
  { word: "datum", means: "The place on the part from which the drawing counts: its zero." },
  {
    word: "reference return",
    means: "The run to the switches by which a machine learns where it stands. Before it no position means anything.",
  },
  {
    word: "register",
    means: "A number that the control keeps and adds up with others: G54 X, a tool’s length, its wear.",
  },
  { word: "work offset, G54", means: "The registers that say where the part’s zero stands on the machine." },
  {
    word: "tool length, H",
    means: "The register that says how far a tool reaches, in whichever way the school counts it.",
  },
  { word: "wear", means: "A small register added to a tool’s own, for what changes while it works." },
  { word: "school", means: "One of the ways of splitting the same sum between registers. Mixed, they do not add up." },
  {
    word: "edge finder",
    means:
      "A tip that wobbles while the spindle turns, is straightened by a face as it comes near, and jumps aside at it.",
  },
  { word: "kick", means: "The jump of an edge finder’s tip. It stays aside until it is set wobbling again." },
  { word: "taster", means: "A lever with a dial: both hands at zero mean that its axis stands over the face." },
  { word: "dial", means: "A round scale with hands; the small one counts whole turns of the large one." },
  { word: "indicator", means: "A fine dial that is carried round, to see whether something runs true or lies square." },
  { word: "probe", means: "A ball that tells the control when it touches." },
  { word: "setter", means: "A plunger, a beam or an arm that measures tools by being met." },
  {
    word: "paper, feeler",
    means: "Something thin of known thickness. It is moved by hand while the tip comes down, until it just drags.",
  },
  {
    word: "drags",
    means: "Held a little, and still moving: the tip stands one thickness away. Pinched is already too far.",
  },
  { word: "block, pin", means: "A hard gauge of known size: it goes into a gap or does not. It is never pressed." },
  { word: "ledger", means: "Your working: what you read, what belongs beside it with its sign, and your sum." },
  { word: "reading", means: "Where the machine stood at a contact, written down there and then." },
  { word: "tip radius", means: "Half of the tip’s width: at a contact the axis stands that far from the face." },
  {
    word: "facing",
    means: "What will still be cut off the top. The skin that you touch lies that far over the drawing’s zero.",
  },
  { word: "skim", means: "A light cut that only makes a surface true, so that it can be measured." },
  { word: "face", means: "The end of the part, square to the axis. On a lathe Z is counted from it." },
  { word: "band", means: "The stretch that a skim has turned: only it has the diameter that you measured." },
  { word: "retract", means: "To move away again, in one axis only, so that the other still stands at what it met." },
  { word: "turret", means: "The drum that holds a lathe’s tools and turns one of them into the working position." },
  { word: "post", means: "The block on a hand-wound lathe that takes one tool at a time." },
  { word: "gang slide", means: "A slide with several tools side by side; each comes over the bar in turn." },
  { word: "insert, edge", means: "The small hard plate that cuts. Turned or changed, its edge sits elsewhere." },
  { word: "nose", means: "The rounded corner of an insert. Its radius is part of the tool’s registers." },
  {
    word: "tip code",
    means: "A number from 0 to 9 that says on which side of the middle of the nose the tip is counted.",
  },
  {
    word: "center height",
    means: "How high a tool’s edge stands against the axis. Too low leaves a pip, too high rubs it.",
  },
  { word: "pip", means: "What a facing cut leaves in the very middle when the edge is not at center height." },
  { word: "shim", means: "A thin strip under a tool’s holder that lifts it." },
  { word: "arm", means: "A setter that swings down beside the chuck, with a plane for X and one for Z." },
  { word: "library", means: "What a readout keeps for each tool and adds to what it shows." },
  { word: "reference tool", means: "The tool at whose touch the display was zeroed. All others are told against it." },
  { word: "cone", means: "A slope on the part. A nose on it tells what a square face cannot." },
  {
    word: "start point",
    means: "The place where a program begins. A declared position holds only from there, and only with its tool.",
  },
  {
    word: "clearance",
    means: "How far away a tool stops before the part or the bar, so that nothing is met by a rapid.",
  },
  {
    word: "gauging",
    means:
      "A program’s own measuring, called by G65 with the probe in the spindle. P9501 reads a slot along X (I1), along Y (J1) or its floor (K1), holds it against what the way Q was to leave, and writes the wear of that way’s tool: E percent of what is off, at most W. P9502 reads and decides: S is wanted, A allowed to each side. P9503 holds a tool against its row H, B allowed.",
  },
  {
    word: "kept setup",
    means:
      "Registers and program of a part that was good, with a card of what they hang on. What has changed is touched again.",
  },
  { word: "row", means: "The line of the tool table that belongs to one tool." },
  {
    word: "gate",
    means: "A mark on the rule along the top. It opens by what was done, not by whether the number is right.",
  },
  { word: "check", means: "You say first what you expect to see, then look, then say whether it is so." },
  { word: "hand in", means: "The end of a lane. Only then are the numbers judged." },
] as const;
