"""Changes of a job as they are written, what every job comes to, and what a change in the shop means for it."""
