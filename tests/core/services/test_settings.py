import pytest

from wide_margin.core.errors import WideMarginError
from wide_margin.core.services import Settings, SettingsKeeper, load_settings


@pytest.fixture
def path(tmp_path):
    return tmp_path / "deep" / "settings.toml"


def written(path, text):
    path.parent.mkdir(exist_ok=True)
    path.write_text(text, encoding="utf-8")


def test_settings_are_saved_and_loaded(path):
    values = {"model_address": "http://127.0.0.1:1/v1", "model_name": "m", "night": True}
    SettingsKeeper(path).change(**values)
    assert load_settings(path) == Settings(**values)


def test_missing_settings_are_the_defaults(path):
    assert load_settings(path) == Settings()


def test_a_value_of_the_wrong_type_is_the_default(path):
    written(path, "[look]\nnight = 'yes'\n[writing_model]\naddress = 7\n")
    assert load_settings(path) == Settings()


def test_comments_and_unknown_keys_stay(path):
    written(path, '# mine\n[writing_model]\nfuture = 1 # keep\n[other]\nx = "y"\n')
    SettingsKeeper(path).change(language="de")
    text = path.read_text(encoding="utf-8")
    for part in ("# mine", "future = 1 # keep", 'x = "y"', 'language = "de"'):
        assert part in text


def test_a_change_leaves_what_another_process_changed(path):
    first, second = SettingsKeeper(path), SettingsKeeper(path)
    first.change(model_address="http://127.0.0.1:1/v1")
    second.change(night=True)
    assert load_settings(path) == Settings("http://127.0.0.1:1/v1", night=True)


def test_what_holds_for_now_is_never_written(path):
    keeper = SettingsKeeper(path)
    keeper.hold_for_now(model_address="http://127.0.0.1:9/v1")
    keeper.change(night=True)
    assert keeper.now.model_address == "http://127.0.0.1:9/v1"
    assert load_settings(path) == Settings(night=True)


@pytest.mark.parametrize("text", ["[writing_model", "\x00", "night = 1\nnight = 2", "[a]\n" * 2])
def test_a_broken_file_is_told_and_never_overwritten(path, text):
    written(path, text)
    keeper = SettingsKeeper(path)
    assert keeper.trouble is not None
    assert keeper.now == Settings()
    with pytest.raises(WideMarginError, match="cannot be read"):
        keeper.change(night=True)
    assert path.read_text(encoding="utf-8") == text
    assert keeper.now.night


def test_watchers_hear_of_changes_until_they_leave(path):
    keeper, heard = SettingsKeeper(path), []
    leave = keeper.watch(heard.append)
    keeper.change(night=True)
    leave()
    keeper.change(night=False)
    assert heard == [Settings(night=True)]


def test_a_folder_that_cannot_be_written_is_told_and_the_change_holds(tmp_path):
    (tmp_path / "file").write_text("in the way", encoding="utf-8")
    keeper = SettingsKeeper(tmp_path / "file" / "settings.toml")
    with pytest.raises(WideMarginError):
        keeper.change(night=True)
    assert keeper.now.night
