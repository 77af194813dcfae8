"""Sign in, sign out, preferences."""

from __future__ import annotations

from typing import Literal

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema, Status

from cutting.quantities.kinds import currency
from server.errors import Refusal
from server.people.roles import preferences_of

router = Router()


class SignIn(Schema):
    name: str
    password: str


class PreferencesPatch(Schema):
    units: Literal["mm", "inch"] | None = None
    theme: Literal["light", "dark", "system"] | None = None
    letter_keys: bool | None = None


class Person(Schema):
    """Who is signed in; name is null for nobody. The token goes into the X-CSRFToken header of changes."""

    name: str | None
    role: Literal["engineer", "operator"] | None
    units: Literal["mm", "inch"]
    theme: Literal["light", "dark", "system"]
    letter_keys: bool
    currency: str
    token: str


@router.get("", auth=None, response=Person)
def read_session(request: HttpRequest) -> Person:
    return _person(request)


@router.post("", auth=None, response=Person)
def sign_in(request: HttpRequest, payload: SignIn) -> Person:
    user = authenticate(request, username=payload.name.strip()[:150], password=payload.password[:4096])
    if user is None:
        raise Refusal(401, "Name and password do not go together.", [{"field": "password", "message": "Check name and password."}])
    login(request, user)
    return _person(request)


@router.delete("", response={204: None})
def sign_out(request: HttpRequest) -> Status:
    logout(request)
    return Status(204, None)


@router.patch("/preferences", response=Person)
def change_preferences(request: HttpRequest, payload: PreferencesPatch) -> Person:
    found = preferences_of(request)
    for name, value in payload.dict(exclude_none=True).items():
        setattr(found, name, value)
    found.save()
    return _person(request)


def _person(request: HttpRequest) -> Person:
    token = get_token(request)
    if not request.user.is_authenticated:
        return Person(name=None, role=None, units="mm", theme="system", letter_keys=True, currency=currency(), token=token)
    found = preferences_of(request)
    return Person(
        name=request.user.get_username(),
        role=found.role,
        units=found.units,
        theme=found.theme,  # type: ignore[arg-type]
        letter_keys=found.letter_keys,
        currency=currency(),
        token=token,
    )
