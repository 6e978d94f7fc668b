"""The key of a writing model: from the environment or the desktop's secret store, never a file."""

import logging
import os

from wide_margin.core.errors import ServiceError

KEY_VARIABLE = "WIDE_MARGIN_MODEL_KEY"
_SERVICE = "wide-margin"
log = logging.getLogger(__name__)


def model_key(address: str) -> str:
    """The key for a model's address: the environment's, else the secret store's, else ""."""
    if key := os.environ.get(KEY_VARIABLE, ""):
        return key
    import keyring  # only when it is asked: it looks for every store there may be
    from keyring.errors import KeyringError

    try:
        return keyring.get_password(_SERVICE, address) or ""
    except KeyringError:
        log.info("there is no secret store to ask for a key")
        return ""


def keep_model_key(address: str, key: str) -> None:
    """Keep a key in the secret store; an empty one is taken out.

    Raises:
        ServiceError: The desktop has no secret store, or refuses.
    """
    import keyring
    from keyring.errors import KeyringError, PasswordDeleteError

    try:
        if key:
            keyring.set_password(_SERVICE, address, key)
        else:
            keyring.delete_password(_SERVICE, address)
    except PasswordDeleteError:
        return  # there was none
    except KeyringError as error:
        raise ServiceError(
            "This desktop has no secret store that can keep the key.",
            hint=f"Put the key into the environment variable {KEY_VARIABLE} instead.",
        ) from error
