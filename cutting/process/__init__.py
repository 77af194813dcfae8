"""The whole part: its outline after each operation, and where seconds and money go."""
