"""Which tool: rankings that are kept, the best of them for one operation or all, and whose question is answered when."""
