"""One machine, loopback only, no HTTPS: what the start command and the tests use."""

from server.settings.base import *  # noqa: F403

SESSION_COOKIE_SECURE = False
CSRF_COOKIE_SECURE = False
