import pytest

from wide_margin.core.layout import word_count


@pytest.mark.parametrize(
    ("text", "n"),
    [("", 0), ("The well is deep", 4), ("井是地上的一个深洞", 5), ("zhnumber 宏包的用法", 4)],
)
def test_signs_without_blanks_count_in_twos(text, n):
    assert word_count(text) == n
