"""What sections and sentences do, told by titles and wording."""

import pytest

from wide_margin.core.digest.roles import CUES, ITSELF, OUTLINES, Role, role_of_title, roles_of
from wide_margin.core.outline import Outline, Section


@pytest.mark.parametrize(
    ("title", "role"),
    [
        ("Closing Files", Role.BODY),
        ("Summary of functions", Role.BODY),
        ("5 Summary and outlook", Role.CONCLUSION),
        ("Closing remarks", Role.CONCLUSION),
        ("Abstract", Role.ABSTRACT),
        ("Zusammenfassung", Role.ABSTRACT),
        ("1 Introduction", Role.INTRODUCTION),
        ("1. Introduction", Role.INTRODUCTION),
        ("Preface", Role.INTRODUCTION),
        ("About this manual", Role.INTRODUCTION),
        ("2.1 Methods", Role.METHOD),
        ("3 Data", Role.METHOD),
        ("4 Results", Role.RESULTS),
        ("5 Discussion", Role.DISCUSSION),
        ("6 Concluding remarks", Role.CONCLUSION),
        ("Conclusions", Role.CONCLUSION),
        ("Fazit", Role.CONCLUSION),
        ("Appendix A", Role.APPENDIX),
        ("Annex B Tables", Role.APPENDIX),
        ("Acknowledgements", Role.THANKS),
        ("GNU Free Documentation License", Role.LEGAL),
        ("Copyright", Role.LEGAL),
        ("Appendix D GNU Free Documentation License", Role.LEGAL),
        ("Contributors", Role.THANKS),
        ("Authors of wells", Role.BODY),
        ("Ropes and buckets", Role.BODY),
        ("The methodical keeper", Role.BODY),
        ("Abstracting services", Role.BODY),
    ],
)
def test_roles_of_titles(title, role):
    assert role_of_title(title) is role


def section(title, level, page):
    return Section(title, level, page, 0.0, 0, 0, page, 0.0)


def test_what_has_no_role_takes_that_of_the_section_around_it():
    outline = Outline((
        section("1 Introduction", 0, 0), section("1.1 Ropes", 1, 0),
        section("2 Results", 0, 1), section("2.1 Ropes", 1, 1),
        section("Appendix A", 0, 2), section("Tables", 1, 2),
    ))  # fmt: skip
    assert roles_of(outline) == [
        Role.INTRODUCTION, Role.BODY, Role.RESULTS, Role.RESULTS, Role.APPENDIX, Role.APPENDIX
    ]  # fmt: skip


SAID = {
    "purpose": ["This paper describes a method.", "In this article we show how wells are dug.",
                "The aim of the book is to help.", "We present a new pump.",
                "The guide is intended for keepers.", "Dieses Handbuch beschreibt den Brunnen."],
    "result": ["The results show that ropes last.", "We found that buckets rust.",
               "It turns out that hemp is better."],
    "limit": ["A drawback is the weight.", "The method is limited to wells.",
              "It does not handle frost.", "This is too slow.", "Known problems are listed."],
    "conclusion": ["In conclusion, ropes matter.", "To sum up, wells are deep.",
                   "We have shown that it works."],
    "next": ["Future work includes a pump.", "Support for lids is planned for the next version.",
             "Further research is needed in this direction."],
    "method": ["Our approach uses two ropes.", "The mean is computed from ten readings."],
    "data": ["The data set has ten wells.", "A survey of 300 respondents was made."],
    "why": ["The package was created because nothing else existed.", "This motivated the work."],
    "audience": ["It is intended for beginners.", "You should be familiar with ropes.",
                 "This book is for keepers."],
    "needs": ["It requires a rope.", "You will need a bucket.", "The files must be installed."],
    "warning": ["Do not touch the lid.", "Be careful with frost."],
    "duty": ["The keeper shall cover the well.", "Keepers must sign."],
    "right": ["The council may sell the well.", "Anyone is entitled to draw water."],
    "definition": ["A well means a hole.", "The rope is called the line."],
    "exception": ["Keepers pay unless they are ill.", "Section 2 does not apply to lids."],
    "change": ["Lids have been added.", "The rope is no longer red."],
}  # fmt: skip
NOT_SAID = {
    "purpose": ["The rope is red.", "Wells are deep in the north."],
    "limit": ["The rope is red.", "Keepers read the staff at noon."],
    "next": ["The next morning the well was dry.", "He will be late."],
    "conclusion": ["The rope is red.", "Wells were dug for ages."],
    "audience": ["The rope is made of hemp."],
    "data": ["The rope is made of hemp."],
}  # fmt: skip


@pytest.mark.parametrize(("cue", "text"), [(cue, t) for cue, texts in SAID.items() for t in texts])
def test_wordings(cue, text):
    assert CUES[cue].search(text.lower())


@pytest.mark.parametrize(
    ("cue", "text"), [(cue, t) for cue, texts in NOT_SAID.items() for t in texts]
)
def test_what_is_no_such_wording(cue, text):
    assert not CUES[cue].search(text.lower())


@pytest.mark.parametrize(
    "text", ["this handbook is large.", "in our study we ask.", "this package"]
)
def test_what_speaks_of_the_document(text):
    assert ITSELF.search(text)


def test_what_tells_of_a_section():
    assert OUTLINES.search("Section 3 describes the rope, and chapter 4 discusses buckets.")
    assert OUTLINES.search("The remaining sections of this manual describe the drum of a well.")
    assert not OUTLINES.search("See section 3 for the rope.")
