"""What is kept of a document besides what was read."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from wide_margin.core.explain import Definitions


@dataclass(frozen=True, slots=True)
class Made:
    """What takes long to make of a document as a whole, to be kept with it."""

    definitions: Definitions
    digest: Mapping[str, object]
    """As the digester gives and takes it."""
    worth: tuple[str, ...]
    """Questions worth asking of it."""
