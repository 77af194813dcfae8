"""`solve` and `advise`: JSON in, JSON out, for scripts, spreadsheets and other programs."""

from __future__ import annotations

import json
import signal
import sys
from collections.abc import Callable
from pathlib import Path
from typing import Any

from cutting.advice.contests import advise
from cutting.doors.json_form import read_request, read_setup
from cutting.doors.plain import limit_facts, plain, problem
from cutting.errors import CuttingError
from cutting.operations.registry import evaluate


def main(arguments: list[str]) -> int:
    """Exit status 0 when all went well, 2 when an input was refused; the refusal names field and bound."""
    if len(arguments) != 2 or arguments[0] not in DOORS:
        print("usage: solve|advise FILE.json (or - for standard input)", file=sys.stderr)
        return 2
    try:
        text = sys.stdin.read() if arguments[1] == "-" else Path(arguments[1]).read_text(encoding="utf-8")
        data = json.loads(text, parse_constant=_refuse_constant)
    except OSError as error:
        return _refuse(CuttingError("FILE", f"{arguments[1]} cannot be read: {error.strerror}."))
    except UnicodeDecodeError:
        return _refuse(CuttingError("FILE", f"{arguments[1]} is not UTF-8 text."))
    except (json.JSONDecodeError, RecursionError) as error:
        return _refuse(CuttingError("FILE", f"{arguments[1]} is not JSON: {error}."))
    except CuttingError as error:
        return _refuse(error)
    many = isinstance(data, list)
    answers: list[Any] = []
    refused = False
    for number, item in enumerate(data if many else [data]):
        try:
            answers.append(DOORS[arguments[0]](item))
        except CuttingError as error:
            refused = True
            answers.append({"error": problem(error.under(f"[{number}]") if many else error)})
    json.dump(answers if many else answers[0], sys.stdout, indent=2, ensure_ascii=False)
    print()
    return 2 if refused else 0


def _solve(item: Any) -> Any:
    outcome = evaluate(read_setup(item))
    limits = [limit_facts(limit) for limit in outcome.limits]
    return {"feasible": outcome.feasible, "binding": outcome.binding.name, **plain(outcome), "limits": limits}


def _advise(item: Any) -> Any:
    return plain(advise(*read_request(item)))


DOORS: dict[str, Callable[[Any], Any]] = {"solve": _solve, "advise": _advise}


def _refuse(error: CuttingError) -> int:
    json.dump({"error": problem(error)}, sys.stdout, ensure_ascii=False)
    print()
    return 2


def _refuse_constant(name: str) -> float:
    raise CuttingError("FILE", f"{name} is not a number that JSON knows.")


if __name__ == "__main__":
    signal.signal(signal.SIGPIPE, signal.SIG_DFL)  # a reader such as `head` may stop early
    sys.exit(main(sys.argv[1:]))
