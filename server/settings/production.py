"""A shop's own server: HTTPS behind a proxy that sets X-Forwarded-Proto; hosts and database by environment."""

import os

from server.settings.base import *  # noqa: F403

ALLOWED_HOSTS = os.environ.get("ARROW_BENCH_HOSTS", "bench.example").split(",")
CSRF_TRUSTED_ORIGINS = [f"https://{host}" for host in ALLOWED_HOSTS]
SESSION_COOKIE_SECURE = True
CSRF_COOKIE_SECURE = True
# a cookie of this name is taken from nobody but this very host, over TLS
SESSION_COOKIE_NAME = "__Host-session"
CSRF_COOKIE_NAME = "__Host-token"
SECURE_SSL_REDIRECT = True
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")
SECURE_HSTS_SECONDS = 31_536_000
SECURE_HSTS_INCLUDE_SUBDOMAINS = True
SECURE_HSTS_PRELOAD = True
BEHIND_PROXY = True
OPENAPI_TO_ALL = False
DEMO = False  # its people's passwords are printed in every copy
INSTRUMENTS_ON_LOOPBACK = False
