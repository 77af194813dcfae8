"""The loopback profile with quick password hashes: tests sign in often."""

from server.settings.loopback import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
WHITENOISE_AUTOREFRESH = True
SHEET_PATIENCE = 0.0  # no worker runs beside the tests of the server
