"""Who may do what: readers read, operators note and measure too, engineers change, administrators see to the people as well."""

from __future__ import annotations

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.base_user import AbstractBaseUser
from django.contrib.auth.models import User
from django.http import HttpRequest
from ninja.security import SessionAuth

from server.errors import Refusal
from server.people.factor import asked_of, wanted_of
from server.people.log import What, note
from server.people.models import Preferences

Role = Preferences.Role
RANK = {role: rank for rank, role in enumerate(Role)}
SENTENCES = {
    Role.OPERATOR: "Readers read; an operator or an engineer notes and measures.",
    Role.ENGINEER: "Operators may read, note and enter measurements; an engineer changes settings.",
    Role.ADMINISTRATOR: "Only administrators manage people.",
}
OWN_DOORS = ("/api/session",)  # what is open while a password waits to be changed


class ExactNames(ModelBackend):
    """A name is spelled as it was given: the database alone would take 'ANN' and 'Änn' for 'ann'."""

    def authenticate(
        self, request: HttpRequest | None, username: str | None = None, password: str | None = None, **more: object
    ) -> AbstractBaseUser | None:
        found = super().authenticate(request, username, password, **more)
        return found if found is not None and found.get_username() == username else None

    def get_user(self, user_id: int) -> User | None:
        return User.objects.select_related("preferences").filter(pk=user_id, is_active=True).first()


class SignedIn(SessionAuth):
    """A signed-in person, by session cookie, who is at it and has a password of their own."""

    def authenticate(self, request: HttpRequest, key: str | None) -> object | None:
        person = super().authenticate(request, key)
        if person is None:
            return None
        if request.headers.get("X-Waiting") != "1":  # a page that only looks whether something changed keeps nobody signed in
            request.session.touch()
        if preferences_of(request).must_change and not request.path.startswith(OWN_DOORS):
            raise Refusal(403, "Choose a password of your own first.", [{"field": "password", "message": "was given by somebody else"}])
        if wanted_of(preferences_of(request)) and not asked_of(person) and not request.path.startswith(OWN_DOORS):
            raise Refusal(403, "Set up your second factor first.", [{"field": "code", "message": "the shop asks it of your role"}])
        return person


def preferences_of(request: HttpRequest) -> Preferences:
    """A person's preferences."""
    return their_preferences(request.user)


def their_preferences(user: User) -> Preferences:
    """The preferences of who asks."""
    try:
        return user.preferences
    except Preferences.DoesNotExist:
        return Preferences.objects.get_or_create(user=user)[0]


def _require(request: HttpRequest, role: str) -> None:
    if RANK[Role(preferences_of(request).role)] < RANK[role]:
        note(request, What.FORBIDDEN, more=f"{request.method} {request.path}")
        raise Refusal(403, SENTENCES[role])


def require_operator(request: HttpRequest) -> None:
    """Raise a 403 for anybody who may only read."""
    _require(request, Role.OPERATOR)


def require_engineer(request: HttpRequest) -> None:
    """Raise a 403 for anybody who may not change settings."""
    _require(request, Role.ENGINEER)


def require_administrator(request: HttpRequest) -> None:
    """Raise a 403 for anybody who does not see to the people."""
    _require(request, Role.ADMINISTRATOR)
