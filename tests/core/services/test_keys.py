import keyring
import pytest
from keyring.backend import KeyringBackend
from keyring.backends.fail import Keyring as NoKeyring

from wide_margin.core.errors import ServiceError
from wide_margin.core.services.keys import KEY_VARIABLE, keep_model_key, model_key

ADDRESS = "http://127.0.0.1:9/v1"


class InMemory(KeyringBackend):
    priority = 1

    def __init__(self):
        super().__init__()
        self.kept = {}

    def get_password(self, service, username):
        return self.kept.get((service, username))

    def set_password(self, service, username, password):
        self.kept[service, username] = password

    def delete_password(self, service, username):
        del self.kept[service, username]


@pytest.fixture
def store(monkeypatch):
    monkeypatch.delenv(KEY_VARIABLE, raising=False)
    before = keyring.get_keyring()
    backend = InMemory()
    keyring.set_keyring(backend)
    yield backend
    keyring.set_keyring(before)


def test_a_key_is_kept_for_its_address(store):
    keep_model_key(ADDRESS, "secret")
    assert model_key(ADDRESS) == "secret"
    assert model_key("http://127.0.0.1:10/v1") == ""
    keep_model_key(ADDRESS, "")
    assert model_key(ADDRESS) == ""


def test_the_environment_goes_first(store, monkeypatch):
    keep_model_key(ADDRESS, "kept")
    monkeypatch.setenv(KEY_VARIABLE, "given")
    assert model_key(ADDRESS) == "given"


def test_without_a_secret_store_the_variable_is_named(store):
    keyring.set_keyring(NoKeyring())
    assert model_key(ADDRESS) == ""
    with pytest.raises(ServiceError) as failure:
        keep_model_key(ADDRESS, "secret")
    assert KEY_VARIABLE in failure.value.hint
