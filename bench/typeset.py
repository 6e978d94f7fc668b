"""How true the outlines are of one text set in many ways, its sections known from its source.

    python bench/typeset.py FOLDER [DESIGN ...]

The texts are manuals that Debian's packages bring as HTML (SOURCES; those not installed are left
out). Each is taken apart with pandoc, its headings without their numbers are the truth, and set
anew by whichever of the programs of DESIGNS are installed: a word processor's styles, print style
sheets, books of TeX and its like. The PDFs are kept in FOLDER; their bookmarks are hidden.
Printed is the F1 of the headings, and of headings under the right one, for each design.

Not a test: it wants packages of some gigabytes. Rules of `core/outline` were found on documents
like these, so that what it tells is not of unseen ones.
"""

import argparse
import json
import re
import shutil
import subprocess
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from pathlib import Path
from statistics import fmean
from typing import Any

from outline import Prepared

DOCS = Path("/usr/share/doc")
SOURCES = {
    "mutt": "mutt/html/manual.html", "git": "git-doc/user-manual.html",
    "tex": "texlive-doc/texlive/texlive-en/texlive-en.html", "ledger": "ledger/ledger3.html",
    "tls": "postfix/html/TLS_README.html", "privoxy": "privoxy/user-manual/*.html",
    "kernel": "debian-kernel-handbook/kernel-handbook.html/ch*.html",
    "es": "installation-guide-amd64/es/ch0*.html", "ru": "installation-guide-amd64/ru/ch0*.html",
    "sv": "installation-guide-amd64/sv/ch0*.html", "cs": "installation-guide-amd64/cs/ch0*.html",
    "fr": "harden-doc/html/fr-FR/ch*.html", "it": "harden-doc/html/it-IT/ch*.html",
}  # fmt: skip
"""Manuals by their files; those of several pages in the order of their names."""
MOST_HEADINGS, DEEPEST = 90, 4
Block = dict[str, Any]


def _text(inlines: Sequence[Block]) -> str:
    """The words of a run of text, without its marks of notes."""
    said = []
    for each in inlines:
        kind: str = each["t"]
        content: Any = each.get("c")
        if kind == "Str":
            said.append(content)
        elif kind in ("Space", "SoftBreak", "LineBreak"):
            said.append(" ")
        elif kind in ("Code", "Math"):
            said.append(content[1])
        elif kind in ("Link", "Span", "Quoted", "Cite"):
            said.append(_text(content[1]))
        elif isinstance(content, list) and kind not in ("Note", "Image", "RawInline"):
            said.append(_text(content))
    return "".join(said)


def _flat(blocks: Sequence[Block]) -> Iterator[Block]:
    """Blocks without divisions, pictures and lists that hold headings."""
    for block in blocks:
        kind: str = block["t"]
        content: Any = block.get("c")
        holds = '"Header"' in json.dumps(block) and kind != "Header"
        if kind == "Div":
            if not {"navheader", "navfooter", "toc"} & set(content[0][1]):
                yield from _flat(content[1])
        elif holds and kind == "BulletList":
            yield from _flat([each for item in content for each in item])
        elif holds and kind == "OrderedList":
            yield from _flat([each for item in content[1] for each in item])
        elif kind == "CodeBlock":
            yield {"t": kind, "c": [["", [], []], content[1]]}
        elif kind not in ("RawBlock", "HorizontalRule", "Figure") and not holds:
            yield block


_NUMBER = re.compile(
    r"(?:(?:Chapter|Cap\w+|Chapitre|Kapit\w+|Глава|Appendix|Anhang|Annexe)\s+[\dA-Z]+[.:]?|\d+(?:\.\d+)*\.?)\s+"
)


def read_source(pattern: str) -> tuple[list[Block], list[tuple[int, str]]]:
    """The blocks of a manual and its headings, each as (level from 1, title)."""
    files = sorted(DOCS.glob(pattern), key=lambda path: [
        int(part) if part.isdigit() else part for part in re.split(r"(\d+)", path.name)
    ])  # fmt: skip
    blocks: list[Block] = []
    for path in files:
        made = _run("pandoc", "-f", "html", "-t", "json", str(path))
        blocks += _flat(json.loads(made)["blocks"])
    kept: list[Block] = []
    titles: list[tuple[int, str]] = []
    open_: list[int] = []
    for block in blocks:
        if block["t"] == "Header":
            whole = re.sub(r"\s+", " ", _text(block["c"][2])).strip()
            number = _NUMBER.match(f"{whole} ")
            title = whole[number.end() :] if number else whole
            if not title or re.sub(r"\W", "", title.lower()) in ("contents", "tableofcontents"):
                continue
            depth = number[0].count(".", 0, -2) + 1 if number else block["c"][0] + DEEPEST
            while open_ and open_[-1] >= depth:
                open_.pop()
            open_.append(depth)
            if len(titles) == MOST_HEADINGS:
                break
            titles.append((min(len(open_), DEEPEST), title))
            block = _heading(*titles[-1])
        kept.append(block)
    return kept, titles


def _heading(level: int, title: str) -> Block:
    words = [{"t": "Str", "c": word} for word in title.split(" ")]
    inlines = [part for word in words for part in ({"t": "Space"}, word)][1:]
    return {"t": "Header", "c": [level, ["", [], []], inlines]}


BOOK = """@page{size:6in 9in;margin:2cm;@top-center{content:string(c);font:italic 8pt serif}}
body{font:10pt/1.35 serif;text-align:justify;hyphens:auto}p{margin:0;text-indent:1.2em}
h1{page-break-before:always;font-weight:normal;font-size:20pt;string-set:c content();
text-align:center}h2{font-variant:small-caps;font-weight:normal;font-size:13pt}
h3{font-style:italic;font-weight:normal;font-size:11pt}h4{font-size:10pt}pre{font-size:8pt}"""
REPORT = """@page{size:A4;margin:2.2cm;@bottom-right{content:counter(page)}}
body{font:10pt/1.4 sans-serif}h1{color:#0b4f8a;font-size:18pt;border-bottom:2px solid}
h2{color:#0b4f8a;font-size:13pt}h3{color:#444;font-size:10.5pt;text-transform:uppercase}
h4{font-style:italic;font-weight:normal;font-size:10pt}pre{background:#eee;font-size:8pt}"""
"""Two print style sheets: of a book, and of a report in colours."""
Maker = Callable[[str, Path], None]
"""Writes a PDF from a document as pandoc's JSON."""


def _run(*command: str, said: str = "", at: Path | None = None) -> str:
    done = subprocess.run(
        command, input=said, capture_output=True, text=True, check=True, timeout=600, cwd=at
    )
    return done.stdout


def _written(source: str, to: str, *options: str) -> str:
    return _run("pandoc", "-f", "json", "-t", to, "-s", *options, said=source)


def _by_office(kind: str, *options: str) -> Maker:
    def make(source: str, path: Path) -> None:
        draft = path.with_suffix(f".{kind}")
        _written(source, kind, "-o", str(draft), *options)
        _run("soffice", f"-env:UserInstallation=file://{path.parent}/office", "--headless",
             "--convert-to", "pdf", "--outdir", str(path.parent), str(draft))  # fmt: skip

    return make


def _by_style(sheet: str) -> Maker:
    def make(source: str, path: Path) -> None:
        page = _written(source, "html5")
        styled = re.sub("<style.*?</style>", f"<style>{sheet}</style>", page, count=1, flags=re.S)
        draft = path.with_suffix(".html")
        draft.write_text(styled, encoding="utf-8")
        _run("weasyprint", str(draft), str(path))

    return make


def _by_tex(to: str, *options: str) -> Maker:
    def make(source: str, path: Path) -> None:
        _written(source, to, "--pdf-engine=xelatex", "-o", str(path), *options)

    return make


def _by_asciidoctor(source: str, path: Path) -> None:
    draft = path.with_suffix(".adoc")
    draft.write_text(_written(source, "asciidoc"), encoding="utf-8")
    _run("asciidoctor-pdf", "-a", "doctype=book", "-a", "toc", "-o", str(path), str(draft))


def _by_context(source: str, path: Path) -> None:
    draft = path.with_suffix(".tex")
    draft.write_text(_written(source, "context", "-N"), encoding="utf-8")
    _run("context", "--batchmode", draft.name, at=path.parent)


def _by_groff(source: str, path: Path) -> None:
    draft = path.with_suffix(".ms")
    draft.write_text(_written(source, "ms"), encoding="utf-8")
    path.write_bytes(subprocess.run(
        ["groff", "-Kutf8", "-t", "-ms", "-Tpdf", str(draft)], capture_output=True, check=True
    ).stdout)  # fmt: skip


_CHAPTERS = "--top-level-division=chapter"
DESIGNS: dict[str, tuple[str, Maker]] = {
    "docx": ("soffice", _by_office("docx")), "odt": ("soffice", _by_office("odt", "--toc")),
    "book": ("weasyprint", _by_style(BOOK)), "report": ("weasyprint", _by_style(REPORT)),
    "asciidoctor": ("asciidoctor-pdf", _by_asciidoctor), "context": ("context", _by_context),
    "groff": ("groff", _by_groff),
    "koma": ("xelatex", _by_tex("latex", "-N", "--toc", "-V", "documentclass=scrreprt", _CHAPTERS)),
    "memoir": ("xelatex", _by_tex("latex", "-V", "documentclass=memoir", _CHAPTERS)),
}  # fmt: skip
"""The program that each design needs, and what sets it."""


def _squashed(title: str) -> str:
    return re.sub(r"[\W\d]+", "", re.sub(r"^(?:chapter|section)\b", "", title.lower()))


def _under(titles: Iterable[tuple[int, str]]) -> Counter[tuple[str, str]]:
    """Each title with the one that it is under."""
    found: Counter[tuple[str, str]] = Counter()
    open_: list[tuple[int, str]] = []
    for level, title in titles:
        while open_ and open_[-1][0] >= level:
            open_.pop()
        found[open_[-1][1] if open_ else "", title] += 1
        open_.append((level, title))
    return found


def scores(path: Path, truth: Sequence[tuple[int, str]]) -> tuple[float, float]:
    """F1 of the headings found in a PDF, and of headings under the right one."""
    outline, _ = Prepared(path).outline([])
    found = [(s.level, _squashed(s.title)) for s in outline.sections]
    wanted = [(level, _squashed(title)) for level, title in truth]
    n = max(len(found) + len(wanted), 1)
    alike = (Counter(t for _, t in found) & Counter(t for _, t in wanted)).total()
    return 2 * alike / n, 2 * (_under(found) & _under(wanted)).total() / n


def main() -> None:
    """Print the table."""
    parser = argparse.ArgumentParser(description="Outlines of one text set in many ways.")
    parser.add_argument("folder", type=Path)
    parser.add_argument("designs", nargs="*", choices=[[], *DESIGNS])
    asked = parser.parse_args()
    asked.folder.mkdir(parents=True, exist_ok=True)
    folder = asked.folder.resolve()
    kept: dict[str, list[tuple[float, float]]] = defaultdict(list)
    for name, pattern in SOURCES.items():
        blocks, truth = read_source(pattern)
        if not truth:
            continue
        version = json.loads(_run("pandoc", "-f", "html", "-t", "json"))["pandoc-api-version"]
        meta = {"title": {"t": "MetaInlines", "c": [{"t": "Str", "c": f"Manual ({name})"}]}}
        source = json.dumps({"pandoc-api-version": version, "meta": meta, "blocks": blocks})
        for design, (program, make) in DESIGNS.items():
            if (asked.designs and design not in asked.designs) or shutil.which(program) is None:
                continue
            path = folder / f"{name}-{design}.pdf"
            try:
                if not path.exists():
                    make(source, path)
                kept[design].append(scores(path, truth))
            except (OSError, subprocess.SubprocessError) as error:
                path.unlink(missing_ok=True)  # it may be half made
                print(f"{path.name}: not made ({type(error).__name__})", flush=True)
    for design, figures in kept.items():
        headings, nested = (fmean(each[k] for each in figures) for k in (0, 1))
        print(f"{design:12} {len(figures):3} {headings:.3f} ({nested:.3f})")


if __name__ == "__main__":
    main()
