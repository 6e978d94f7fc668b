"""Work done beside this process by a copy of it, which sends what it has made and ends."""

from __future__ import annotations

import logging
import os
import pickle
import threading
from collections.abc import Callable
from contextlib import suppress
from typing import TYPE_CHECKING, Any, BinaryIO, NoReturn

from wide_margin.core.session.worker import end_with_parent

if TYPE_CHECKING:
    from wide_margin.core.jobs import Made

log = logging.getLogger(__name__)


def beside(make: Callable[[], Made]) -> Callable[[], Made]:
    """Have something made by a copy of this process, which has at hand all that this one has.

    What the copy makes is pickled. Where it cannot be started, or ends without having made it,
    this process makes it when it is waited for.
    """
    own = os.getpid()
    pipe: tuple[int, ...] = ()
    try:
        at, to = pipe = os.pipe()
        child = os.fork()
    except OSError:
        log.warning("nothing can be made beside this process", exc_info=True)
        for end in pipe:
            os.close(end)
        return make
    if not child:
        os.close(at)
        _make_and_end(make, to, own)
    os.close(to)
    answer = os.fdopen(at, "rb")

    def wait() -> Made:
        found: tuple[Made] | None = _sent(answer)
        with suppress(ChildProcessError):
            os.waitpid(child, 0)
        return found[0] if found is not None else make()

    return wait


def _make_and_end(make: Callable[[], Made], to: int, parent: int) -> NoReturn:
    try:
        threading.Thread(target=end_with_parent, args=(parent,), daemon=True).start()
        with os.fdopen(to, "wb") as answer:
            pickle.dump((make(),), answer, protocol=5)
    except Exception:
        log.warning("what was to be made beside was not", exc_info=True)
    finally:
        os._exit(0)


def _sent(answer: BinaryIO) -> Any:
    """What the copy has made, in a tuple; None where it has not."""
    with answer:
        try:
            return pickle.load(answer)
        except Exception:
            log.warning("what was made beside could not be taken", exc_info=True)
            return None
