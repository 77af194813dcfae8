"""The document of the doors, with every refusal that may come: which statuses, in which form."""

from __future__ import annotations

from typing import Any

from ninja import NinjaAPI
from ninja.errors import ValidationError, ValidationErrorContext

PROBLEM = {
    "type": "object",
    "title": "Problem",
    "description": "A refusal (RFC 9457): what is wrong in a sentence, and which fields with which bound.",
    "required": ["title", "status", "errors"],
    "properties": {
        "type": {"type": "string"},
        "title": {"type": "string"},
        "status": {"type": "integer"},
        "errors": {
            "type": "array",
            "items": {
                "type": "object",
                "required": ["field", "message"],
                "properties": {"field": {"type": "string"}, "message": {"type": "string"}, "bound": {"type": "string"}},
            },
        },
    },
}
ALWAYS = {
    401: "Nobody is signed in.",
    403: "Not with this role, or without a valid token.",
    404: "There is no such thing.",
    409: "It was changed since, or is in use.",
    414: "The address is too long.",
    422: "A field is not what it may be; each is named with its bound.",
    503: "The database does not answer; nothing was saved.",
}
WITH_BODY = {400: "The body is not JSON.", 413: "The body is too large.", 415: "The body is of another kind than said here."}
SIGN_IN = {429: "Too many wrong passwords; later again."}


class DocumentedAPI(NinjaAPI):
    """The API with its refusals in its document."""

    def validation_error_from_error_contexts(self, error_contexts: list[ValidationErrorContext]) -> ValidationError:
        """The refusals with what was typed and with their cause, both of which the sentences name."""
        errors = []
        for context in error_contexts:
            places = context.model.__ninja_flatten_map_reverse__
            for one in context.pydantic_validation_error.errors(include_url=False):
                loc = (context.model.__ninja_param_source__, *places.get(one["loc"], one["loc"]))
                errors.append({**one, "loc": loc})
        return ValidationError(errors)

    def get_openapi_schema(self, **more: Any) -> Any:
        found = super().get_openapi_schema(**more)
        found["components"]["schemas"]["Problem"] = PROBLEM
        for path, methods in found["paths"].items():
            for operation in methods.values():
                told = ALWAYS | (WITH_BODY if "requestBody" in operation else {}) | (SIGN_IN if "/session" in path else {})
                for status, words in sorted(told.items()):
                    operation["responses"].setdefault(status, _refusal(words))
        return found


def _refusal(words: str) -> dict[str, Any]:
    return {"description": words, "content": {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}}
