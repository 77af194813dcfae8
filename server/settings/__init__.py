"""Profiles: base, loopback (the start command) and production (HTTPS behind a proxy)."""
