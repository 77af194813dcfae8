"""A second factor: six digits of a clock that only the person's own device knows (TOTP, RFC 6238), with recovery codes for a lost one."""

from __future__ import annotations

import secrets
from hashlib import sha256

import pyotp
import segno
from django.conf import settings
from django.contrib.auth.models import User
from django.db import transaction
from django.utils import timezone

from server.people.models import Preferences, SecondFactor

STEP = 30  # s
DRIFT = 1  # steps by which the device's clock may be off
RECOVERY, LONG = 8, 10  # codes, and letters of each: 50 bits
LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"


def asked_of(user: User) -> bool:
    """Whether a code is asked at this person's sign-in."""
    return SecondFactor.objects.filter(user=user, confirmed_at__isnull=False).exists()


def wanted_of(preferences: Preferences) -> bool:
    """Whether the shop asks people of this role to have one."""
    return preferences.role in settings.FACTOR_ROLES


def begin(user: User) -> tuple[str, str, str]:
    """A new secret that counts once it is confirmed: in letters, as an address for the device, as a picture (SVG in a data address)."""
    secret = pyotp.random_base32()
    SecondFactor.objects.update_or_create(user=user, defaults={"waiting": secret})
    address = pyotp.TOTP(secret, interval=STEP).provisioning_uri(name=user.get_username(), issuer_name="Arrow Bench")
    return secret, address, segno.make(address, error="m").svg_data_uri(scale=4, border=2)


def confirm(user: User, code: str) -> list[str] | None:
    """The recovery codes, shown this once; None where the code is not the new device's."""
    with transaction.atomic():
        row = SecondFactor.objects.select_for_update().filter(user=user).exclude(waiting="").first()
        if row is None or (step := _step(row.waiting, code, 0)) is None:
            return None
        codes = ["".join(secrets.choice(LETTERS) for _ in range(LONG)) for _ in range(RECOVERY)]
        row.secret, row.waiting, row.used, row.confirmed_at = row.waiting, "", step, timezone.now()
        row.recovery = [_hashed(one) for one in codes]
        row.save()
    return codes


def passes(user: User, code: str) -> bool:
    """Whether a code opens; each opens once."""
    plain = code.replace(" ", "").replace("-", "").lower()
    with transaction.atomic():
        row = SecondFactor.objects.select_for_update().filter(user=user, confirmed_at__isnull=False).first()
        if row is None:
            return False
        if (step := _step(row.secret, plain, row.used)) is not None:
            row.used = step
        elif (hashed := _hashed(plain)) in row.recovery:
            row.recovery = [one for one in row.recovery if one != hashed]
        else:
            return False
        row.save(update_fields=["used", "recovery"])
    return True


def drop(user: User) -> None:
    """Take the factor away."""
    SecondFactor.objects.filter(user=user).delete()


def left(user: User) -> int:
    """Recovery codes that were not used yet."""
    row = SecondFactor.objects.filter(user=user).first()
    return len(row.recovery) if row else 0


def _step(secret: str, code: str, used: int) -> int | None:
    """The step of the clock whose code this is, later than the one that was used last."""
    clock, now = pyotp.TOTP(secret, interval=STEP), int(timezone.now().timestamp()) // STEP
    for step in range(now - DRIFT, now + DRIFT + 1):
        if step > used and secrets.compare_digest(clock.at(step * STEP), code if code.isascii() else ""):
            return step
    return None


def _hashed(code: str) -> str:
    return sha256(code.encode()).hexdigest()
