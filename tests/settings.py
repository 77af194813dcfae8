"""The loopback profile with quick password hashes: tests sign in often."""

from server.settings.loopback import *  # noqa: F403

PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
WHITENOISE_AUTOREFRESH = True
