"""What a job keeps: its document, the one door to the plan that the core reckons with, what was typed, and how it is told."""
