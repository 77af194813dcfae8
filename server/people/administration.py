"""What administrators do: add, rename and lock people, give roles and passwords, end sessions, read what happened at the door."""

from __future__ import annotations

import secrets
from datetime import datetime, timedelta
from typing import Any

from django.contrib.auth.models import User
from django.contrib.auth.validators import UnicodeUsernameValidator
from django.core.exceptions import ValidationError
from django.db import IntegrityError, transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from server.errors import Refusal
from server.people import factor, sessions
from server.people.api import RoleName, SessionOut, sessions_of
from server.people.log import What, note
from server.people.models import Happening, Preferences, Session
from server.people.roles import require_administrator, their_preferences
from server.schema import Schema

router = Router()
Role = Preferences.Role
# no letter that is read as another one; it opens nothing but the choice of an own password
LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"
MOST_PEOPLE = 1000
RELIED_ON = timedelta(hours=36)  # one is taken every day; a night may be missed before it is worth a word


class PersonRow(Schema):
    """A person in the list."""

    id: int
    name: str
    role: RoleName
    locked: bool
    must_change: bool
    added_at: datetime
    signed_in_at: datetime | None
    sessions: int


class PersonIn(Schema):
    """A new person."""

    name: str
    role: RoleName = "operator"


class PersonPatch(Schema):
    """What of a person changes."""

    name: str | None = None
    role: RoleName | None = None
    locked: bool | None = None


class GivenPassword(Schema):
    """A password that was made for somebody: told once, good for one thing, the choice of their own."""

    person: PersonRow
    password: str


class HappeningOut(Schema):
    """Something that happened with sign-ins and rights."""

    at: datetime
    what: str
    who: str
    about: str
    more: str
    address: str


class BackupsOut(Schema):
    """How the shop's backups stand: the newest, what failed after it, and whether it is too old to rely on."""

    newest: HappeningOut | None
    failed: HappeningOut | None
    late: bool


class HappeningPage(Schema):
    """A page of them."""

    matched: int
    rows: list[HappeningOut]


@router.get("", response=list[PersonRow])
def list_people(request: HttpRequest) -> list[dict[str, Any]]:
    """Everybody, with their roles."""
    require_administrator(request)
    return [_row(user) for user in User.objects.select_related("preferences").order_by("username")[:MOST_PEOPLE]]


@router.post("", response={201: GivenPassword})
def add_person(request: HttpRequest, payload: PersonIn) -> Status:
    """A new account, with a password to hand over."""
    require_administrator(request)
    user, password = add(payload.name, Role(payload.role))
    note(request, What.ADDED, about=user.username, more=payload.role)
    return Status(201, {"person": _row(user), "password": password})


@router.get("/happenings", response=HappeningPage)
def list_happenings(request: HttpRequest, what: str = "", name: str = "", offset: int = 0, limit: int = 50) -> dict[str, Any]:
    """The access log, the newest first."""
    require_administrator(request)
    rows = Happening.objects.all()
    if what:
        rows = rows.filter(what=what)
    if name:
        rows = rows.filter(who=name) | rows.filter(about=name)
    start = min(max(offset, 0), 1_000_000)
    return {"matched": rows.count(), "rows": list(rows[start : start + min(max(limit, 1), 200)])}


@router.get("/backups", response=BackupsOut)
def read_backups(request: HttpRequest) -> dict[str, Any]:
    """The backups that were taken."""
    require_administrator(request)
    newest = Happening.objects.filter(what=What.BACKED_UP).first()
    failed = Happening.objects.filter(what=What.NOT_BACKED_UP).first()
    return {
        "newest": newest,
        "failed": failed if failed and (newest is None or failed.at > newest.at) else None,
        "late": newest is None or timezone.now() - newest.at > RELIED_ON,
    }


@router.patch("/{person_id}", response=PersonRow)
def change_person(request: HttpRequest, person_id: int, payload: PersonPatch) -> dict[str, Any]:
    """Rename, lock or unlock a person, or give another role. One administrator who can sign in always stays."""
    require_administrator(request)
    with transaction.atomic():
        # whoever else changes people waits here, so that two administrators cannot lock each other out at once
        administrators = set(
            User.objects.select_for_update().filter(preferences__role=Role.ADMINISTRATOR, is_active=True).values_list("pk", flat=True)
        )
        user = _found(person_id)
        preferences = their_preferences(user)
        if (payload.locked or payload.role not in (None, Role.ADMINISTRATOR)) and administrators == {user.pk}:
            raise Refusal(409, f"{user.username} is the only administrator: make another one first.")
        if payload.name is not None and payload.name.strip() != user.username:
            before, user.username = user.username, checked_name(payload.name)
            _keep(user)
            note(request, What.RENAMED, about=user.username, more=f"was {before}")
        if payload.role is not None and payload.role != preferences.role:
            note(request, What.ROLE_CHANGED, about=user.username, more=f"{preferences.role} to {payload.role}")
            preferences.role = payload.role
            preferences.save()
        if payload.locked is not None and payload.locked == user.is_active:
            user.is_active = not payload.locked
            user.save(update_fields=["is_active"])
            note(request, What.LOCKED if payload.locked else What.UNLOCKED, about=user.username)
            if payload.locked:
                sessions.end(Session.objects.filter(person=user))
    return _row(user)


@router.post("/{person_id}/password", response=GivenPassword)
def give_password(request: HttpRequest, person_id: int) -> dict[str, Any]:
    """A new password to hand over, where the old one is forgotten or known to others; all sessions end, and the second factor goes."""
    require_administrator(request)
    user = _found(person_id)
    password = give(user)
    factor.drop(user)
    note(request, What.PASSWORD_GIVEN, about=user.username)
    return {"person": _row(user), "password": password}


@router.get("/{person_id}/sessions", response=list[SessionOut])
def list_sessions(request: HttpRequest, person_id: int) -> list[dict[str, Any]]:
    """Every open session."""
    require_administrator(request)
    return sessions_of(_found(person_id).pk, request.session.session_key)


@router.delete("/{person_id}/sessions", response={204: None})
def end_sessions(request: HttpRequest, person_id: int) -> Status:
    """Sign a person out everywhere but where this is asked."""
    require_administrator(request)
    user = _found(person_id)
    ended = sessions.end(Session.objects.filter(person=user).exclude(pk=request.session.session_key))
    note(request, What.SESSIONS_ENDED, about=user.username, more=str(ended))
    return Status(204, None)


def add(name: str, role: Preferences.Role) -> tuple[User, str]:
    """Make an account, and give its first password."""
    if User.objects.count() >= MOST_PEOPLE:
        raise Refusal(409, f"There are {MOST_PEOPLE} people already.")
    user = User(username=checked_name(name))
    with transaction.atomic():
        _keep(user)
        Preferences.objects.create(user=user, role=role)
        password = give(user)
    factor.drop(user)
    return user, password


def give(user: User) -> str:
    """Set a password that opens only the choice of an own one, and end all sessions."""
    password = "-".join("".join(secrets.choice(LETTERS) for _ in range(5)) for _ in range(3))
    with transaction.atomic():
        user.set_password(password)
        user.save(update_fields=["password"])
        preferences = their_preferences(user)
        preferences.must_change = True
        preferences.save()
        sessions.end(Session.objects.filter(person=user))
    return password


def checked_name(name: str) -> str:
    """The name as it is kept. Raises a 422 that says which letters and how many."""
    name = User.normalize_username(name.strip())
    try:
        UnicodeUsernameValidator()(name)
    except ValidationError as error:
        said = "letters, digits and . _ - + @ only, and at least one of them"
        raise Refusal(422, f"name: {said}.", [{"field": "name", "message": said}]) from error
    if len(name) > 60:
        raise Refusal(422, "name: longer than 60 letters.", [{"field": "name", "message": "too long", "bound": "60 letters"}])
    return name


def _keep(user: User) -> None:
    try:
        with transaction.atomic():
            user.save()
    except IntegrityError as error:
        said = f"somebody is called {user.username} already, or nearly so"
        raise Refusal(409, f"name: {said}.", [{"field": "name", "message": said}]) from error


def _found(person_id: int) -> User:
    found: User = get_object_or_404(User.objects.select_related("preferences"), pk=person_id)
    return found


def _row(user: User) -> dict[str, Any]:
    preferences = their_preferences(user)
    return {
        "id": user.pk,
        "name": user.username,
        "role": preferences.role,
        "locked": not user.is_active,
        "must_change": preferences.must_change,
        "added_at": user.date_joined,
        "signed_in_at": user.last_login,
        "sessions": sum(not row.idle for row in Session.objects.filter(person=user)),
    }
