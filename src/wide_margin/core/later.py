"""Large packages that are rarely needed, loaded when something of them is first asked for."""

import importlib.util
import sys
from types import ModuleType


def loaded_later(name: str) -> ModuleType:
    """A module that is executed at the first use of one of its names.

    Source:
        The recipe "Implementing lazy imports" of Python's documentation of importlib.

    Raises:
        ModuleNotFoundError: There is no such module.
    """
    if name in sys.modules:
        return sys.modules[name]
    spec = importlib.util.find_spec(name)
    if spec is None or spec.loader is None:
        raise ModuleNotFoundError(name)
    spec.loader = importlib.util.LazyLoader(spec.loader)
    module = importlib.util.module_from_spec(spec)
    sys.modules[name] = module
    spec.loader.exec_module(module)
    return module
