"""What was read at the machine: sizes, traces, and the line to the dynamometer."""
