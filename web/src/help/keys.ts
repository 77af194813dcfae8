/** The keys, by where they act. */
export const KEYS: [string, [string, string][]][] = [
  [
    "Everywhere",
    [
      ["/", "search anything"],
      ["u", "mm or inch"],
      ["? F1", "help: this page, its terms, its keys"],
      ["Ctrl Z", "undo"],
      ["Ctrl Y", "redo"],
    ],
  ],
  [
    "Jobs, job bench, crib",
    [
      ["j k", "into the list, down and up; Enter opens what has the focus"],
      ["n", "on the jobs: a new job"],
      ["a l t p", "on a job: add an operation, one-line entry, the best tools, test the plan"],
      ["o", "on a job: the set-up sheet of all operations"],
    ],
  ],
  [
    "Operation bench",
    [
      ["↑ ↓", "change the selected setting; Shift fine, Page Up and Page Down coarse"],
      ["← → ↑ ↓", "on the chip map: feed and depth"],
      ["s f d", "go to speed, feed, depth or the third setting"],
      ["m", "go to the map"],
      [", . Space", "travel through a cut or its strokes; play it"],
      ["j k", "into the candidates, down and up; Enter or Space takes the one in focus"],
      ["v y", "all warnings; rejected tools"],
      ["p", "pin the candidate to compare"],
      ["w", "working of the binding limit"],
      ["1 2 3", "try a remedy"],
      ["z r l", "passes and size, rigidity, edge life"],
      ["t g c h", "turning methods, edge angles, coolant, hard turning"],
      ["q", "the current process against this plan or another way, by what drives its cost"],
      ["x", "set-up of tool and holding, where the operation is a slot"],
      ["o", "the set-up sheet"],
      ["n", "notes and measurements"],
      ["a", "trouble: what is seen, its causes, one change"],
      ["e", "what the drawing says"],
      ["[ ]", "previous and next operation"],
      ["b", "back to the job bench"],
    ],
  ],
];
