"""What all profiles share."""

from __future__ import annotations

import os
import secrets
from datetime import timedelta
from pathlib import Path

from csp.constants import NONE, SELF

from cutting.quantities.kinds import use_currency
from house.kept import kept

ROOT = Path(__file__).resolve().parents[2]
VAR = Path(os.environ.get("ARROW_BENCH_VAR", ROOT / "var"))


def secret_key() -> str:
    """Generated at the first start, kept beside the data, never in the repository."""
    if given := os.environ.get("ARROW_BENCH_SECRET_KEY"):
        return given
    return kept(VAR / "secret-key", lambda: secrets.token_urlsafe(60))


SECRET_KEY = secret_key()
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost"]
ROOT_URLCONF = "server.urls"
WSGI_APPLICATION = "server.wsgi.application"
INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "axes",
    "django_vite",
    "csp",
    "django_tasks",
    "django_tasks_db",
    "server.work",
    "server.people",
    "server.records",
    "server.shelf",
    "server.crib",
    "server.floor",
    "server.jobs",
    "server.trials",
    "server.clinic",
    "server.exchange",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "csp.middleware.CSPMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "server.strict.only_what_is_declared",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "server.sentences.reader_units",
    "server.errors.kept_nowhere",
    "server.records.once.done_once",
    "axes.middleware.AxesMiddleware",
]
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [ROOT / "server" / "templates"],
        "OPTIONS": {"context_processors": ["django.template.context_processors.request"]},
    }
]
DATABASE_PATIENCE = int(os.environ.get("ARROW_BENCH_DB_PATIENCE", 60))
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.mysql",
        "HOST": os.environ.get("ARROW_BENCH_DB_HOST", "127.0.0.1"),
        "PORT": os.environ.get("ARROW_BENCH_DB_PORT", "3306"),
        "NAME": os.environ.get("ARROW_BENCH_DB_NAME", "arrow_bench"),
        "USER": os.environ.get("ARROW_BENCH_DB_USER", "arrow_bench"),
        "PASSWORD": os.environ.get("ARROW_BENCH_DB_PASSWORD", ""),
        "CONN_MAX_AGE": 600,
        "CONN_HEALTH_CHECKS": True,
        "OPTIONS": {
            # s: a database that has stopped, or a network that swallows, is said and not waited for
            "connect_timeout": 5,
            "read_timeout": DATABASE_PATIENCE,
            "write_timeout": DATABASE_PATIENCE,
            "charset": "utf8mb4",
            "init_command": "SET sql_mode='STRICT_TRANS_TABLES'",
            "isolation_level": "read committed",
        },
        "TEST": {"CHARSET": "utf8mb4", "COLLATION": "utf8mb4_unicode_ci"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
TASKS = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend"}}
INSTRUMENTS_ON_LOOPBACK = True  # whether an instrument may be paired on this very machine
WORK_SECONDS = float(os.environ.get("ARROW_BENCH_WORK_SECONDS", 900))  # that one piece of long work may take
SHEET_PATIENCE = 2.0  # s that a request waits for its sheet before the page that asks again
WORK_MEGABYTES = int(os.environ.get("ARROW_BENCH_WORK_MEGABYTES", 2000))
# where big studies run: processes of this machine, or the scheduler of a Dask cluster, as tcp://host:8786
STUDY_PROCESSES = int(os.environ.get("ARROW_BENCH_STUDY_PROCESSES", os.cpu_count() or 1))
STUDY_CLUSTER = os.environ.get("ARROW_BENCH_DASK", "")
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "server.people.roles.ExactNames"]
# guessing: so many wrong passwords for one name from one address, or from one address at all, and none is looked at for a while
AXES_FAILURE_LIMIT = 8
AXES_COOLOFF_TIME = timedelta(minutes=5)
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"], "ip_address"]
AXES_RESET_ON_SUCCESS = False  # else one's own sign-in clears what was guessed at others' names from the same address
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_DISABLE_ACCESS_LOG = True  # the log of the door is ours, in the people's words
AXES_VERBOSE = False
AXES_CLIENT_IP_CALLABLE = "server.people.log.address_of"
AXES_LOCKOUT_CALLABLE = "server.people.api.throttled"
# roles whose people must have a second factor, parted by commas
FACTOR_ROLES = tuple(filter(None, os.environ.get("ARROW_BENCH_FACTOR_ROLES", "").split(",")))
BEHIND_PROXY = False
OPENAPI_TO_ALL = True
SESSION_ENGINE = "server.people.sessions"
SESSION_COOKIE_AGE = 7 * 24 * 3600  # s; whoever does nothing is signed out sooner
IDLE_MINUTES = float(os.environ.get("ARROW_BENCH_IDLE_MINUTES", 8 * 60))  # a shift
DEMO = os.environ.get("ARROW_BENCH_DEMO", "yes") != "no"  # fill in the demo data, and its people with it
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 12}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "server.people.passwords.HardToGuess"},
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator", "OPTIONS": {"user_attributes": ["username"]}},
]
LANGUAGE_CODE = "en"
# the shop's own currency, by sign or code
CURRENCY = os.environ.get("ARROW_BENCH_CURRENCY", "€")[:4]
use_currency(CURRENCY)
TIME_ZONE = "UTC"
USE_TZ = True
STATIC_URL = "static/"
STATIC_ROOT = VAR / "static"
STATIC_ROOT.mkdir(parents=True, exist_ok=True)
_FONTS = ROOT / "web" / "node_modules" / "@fontsource"
_SHIPPED = (
    ROOT / "web" / "dist",
    # the paper sheet uses the interface's own fonts
    ("fonts/words", _FONTS / "barlow-semi-condensed" / "files"),
    ("fonts/figures", _FONTS / "ibm-plex-mono" / "files"),
)
STATICFILES_DIRS = [one for one in _SHIPPED if (one[1] if isinstance(one, tuple) else one).exists()]
WHITENOISE_USE_FINDERS = True
DJANGO_VITE = {"default": {"dev_mode": False, "manifest_path": ROOT / "web" / "dist" / "manifest.json"}}
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF],
        "font-src": [SELF],
        "img-src": [SELF, "data:"],
        "connect-src": [SELF],
        "base-uri": [NONE],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}
X_FRAME_OPTIONS = "DENY"
SECURE_REFERRER_POLICY = "same-origin"
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
CSRF_COOKIE_SAMESITE = "Lax"
CSRF_FAILURE_VIEW = "server.errors.csrf_failure"
DATA_UPLOAD_MAX_MEMORY_SIZE = 12 * 1024 * 1024
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
