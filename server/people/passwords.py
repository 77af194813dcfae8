"""How hard a password is to guess: repeated, well-known and keyboard passwords are refused, whatever their length."""

from __future__ import annotations

from django.contrib.auth.base_user import AbstractBaseUser
from django.core.exceptions import ValidationError
from zxcvbn import zxcvbn

LOOKED_AT = 72  # letters: more of them are no easier to guess, and slow to weigh
SHOP = ("arrow", "bench", "arrowbench")


class HardToGuess:
    """A password validator: at least so many points of four (zxcvbn; Wheeler, USENIX Security 2016)."""

    def __init__(self, least: int = 3) -> None:
        self.least = least

    def validate(self, password: str, user: AbstractBaseUser | None = None) -> None:
        """Raise `ValidationError` for one that is guessed soon, with the reason."""
        names = [user.get_username()] if user is not None else []
        found = zxcvbn(password[:LOOKED_AT], user_inputs=[*SHOP, *names])
        if found["score"] < self.least:
            why = str(found["feedback"]["warning"] or "it follows a pattern").rstrip(".").lower()
            raise ValidationError(f"This password is guessed soon: {why}. Take a few words that do not belong together.", "easy")

    def get_help_text(self) -> str:
        """What is asked."""
        return "A few words that do not belong together are easy to keep and hard to guess."
