/** What each page is for and how one works in it, by the beginning of its address; the longest that fits is taken. */
export interface ViewHelp {
  title: string;
  lines: string[];
}

const VIEWS: [RegExp, ViewHelp][] = [
  [
    /^\/jobs\/\d+\/operations\//,
    {
      title: "One operation",
      lines: [
        "Change speed, feed or depth with ↑ and ↓: results, limits and the picture follow at once.",
        "The list of limits begins with the one that governs. Its bar shows how much of it is used; click it for the calculation and for changes that have been tried.",
        "Hard limits hold, are close or are over: by how often they are met over hard bars, weak edges and worn machines.",
        "Every result opens its calculation: formula, numbers, source, uncertainty.",
        "The ranking beside it holds every tool of the crib that can do this, at its own best speed and feed. Enter takes a row; Ctrl Z takes it back.",
        "The map shows where chips break and which limit closes each side. Click or drag in it.",
        "Warnings stand below the picture, the gravest first; v shows all of them.",
        "n notes what happened and what was measured; o opens the set-up sheet.",
      ],
    },
  ],
  [
    /^\/programs/,
    {
      title: "Check a program",
      lines: [
        "Paste a program or open a file: choose the control that it is written for and the machine it runs on.",
        "What the text does is drawn beside it: rapid dashed, feed full, threads dotted. Click in the picture or move the slider to go to a block.",
        "What is wrong stands on its line and in the list below; what the machine must stop for is marked.",
        "Tell the blank, and rapid moves into the metal, into the jaws and long feed in air are found too.",
        "What was not checked is listed each time. Prove it out: single block, dry, hand on feed hold.",
      ],
    },
  ],
  [
    /^\/jobs\/\d+\/at-machine/,
    {
      title: "Operator page",
      lines: [
        "One operation at a time in large figures, for a tablet beside the machine.",
        "Measured sizes are entered here; what to program for the next pass follows from them.",
        "What must not be run says so in red, with the reason.",
      ],
    },
  ],
  [
    /^\/jobs\/\d+/,
    {
      title: "One part",
      lines: [
        "l: type the whole part in one line, as Ø49 h8 x 70 Ra 1.6, Ø35 k6 x 126, tapped M10 x 20. Its operations are planned and their tools chosen.",
        "a: add one operation. j and k walk the list, Enter opens one.",
        "Each row says whether all its hard limits hold, are close or are over; over the list stands how often the whole plan holds.",
        "t: the best tools for all operations at once. p: the plan over a thousand deliveries, with what would make it surer.",
        "Material, blank, machine, workholding and goal are changed at the left; the plan keeps what is set and marks what is touched.",
        "o: the set-up sheet of all operations.",
      ],
    },
  ],
  [
    /^\/crib\/heavy-tools/,
    {
      title: "Heavy boring tools",
      lines: [
        "A built-up tool from its bodies, arms and cartridges: mass, moment, natural frequency, balance, and what it bores.",
        "What is typed is checked at once; changes that make it lighter or stiffer stand at the right.",
      ],
    },
  ],
  [
    /^\/crib\/geometries/,
    {
      title: "Geometries",
      lines: [
        "Chipbreakers and edge lines with their chip window: the feeds and depths at which they break the chip.",
      ],
    },
  ],
  [
    /^\/crib\/assemblies/,
    {
      title: "Assemblies",
      lines: ["Cutting tool and toolholder as they are built and stood out; a job takes them as they are."],
    },
  ],
  [
    /^\/crib\/tool-materials/,
    {
      title: "Tool materials",
      lines: ["High-speed steel to diamond for one cut: what each can do, what it costs per piece, and why."],
    },
  ],
  [
    /^\/crib/,
    {
      title: "Tools",
      lines: [
        "Type a designation or a part of one; filter by what a tool is for, its size and its seat.",
        "n enters a tool: its designation fills in what ISO 1832, ISO 5608 or ISO 13399 say.",
        "What is archived stays with the jobs that use it.",
      ],
    },
  ],
  [
    /^\/shelf\/threads/,
    {
      title: "Threads",
      lines: [
        "Type a thread as on the drawing: sizes and limits by its standard, wires, tap drills, and how many passes it takes.",
      ],
    },
  ],
  [
    /^\/shelf/,
    {
      title: "Materials",
      lines: [
        "Names by EN, AISI, UNS or number. Each with its group, strength, cutting force and how it behaves.",
        "Hardness is converted by ISO 18265; a material of your own takes what it leaves blank from its group.",
      ],
    },
  ],
  [
    /^\/floor/,
    {
      title: "Machines",
      lines: [
        "Power and torque over speed, spindles, chuck, coolant, rates. What a machine cannot give, no plan asks of it.",
      ],
    },
  ],
  [
    /^\/exchange/,
    {
      title: "Import and export",
      lines: [
        "A template of each table to download, a preview of every import, and everything out as CSV, XLSX or JSON.",
      ],
    },
  ],
  [/^\/people/, { title: "People", lines: ["Who may read, cut and change; sessions, and the access log."] }],
  [/^\/account/, { title: "Your account", lines: ["Password, sessions, units, theme and keys."] }],
  [
    /^\/help/,
    {
      title: "Documents",
      lines: ["How the first choice is made, what is warned of, sources, units, file forms."],
    },
  ],
  [
    /^\/$/,
    {
      title: "Jobs",
      lines: [
        "n begins a job: material, machine, blank. Then the part is typed in one line.",
        "What needs attention stands first, with the reason. j and k walk the list, Enter opens.",
        "/ searches jobs, tools, materials, threads, terms and actions.",
      ],
    },
  ],
];

export function helpOf(address: string): ViewHelp | undefined {
  return VIEWS.find(([where]) => where.test(address))?.[1];
}
