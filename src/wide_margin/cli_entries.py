"""Commands of the command line that work on entries: taking them away, bringing them in, a copy."""

from collections.abc import Sequence
from pathlib import Path
from typing import Annotated

import typer

from wide_margin.cli import FileArgument, PasswordOption, app, put_text, read_document
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.annotated import write_annotated
from wide_margin.core.export.entries import EntriesFormat, export_entries
from wide_margin.core.export.saving import save_whole
from wide_margin.core.margin import Entry, EntryKind, Store, default_store_path
from wide_margin.core.margin.gathering import GroupBy, Wanted, gather, matching
from wide_margin.core.outline import Outline
from wide_margin.core.plain import counted
from wide_margin.core.session import Session
from wide_margin.core.session.placing import placed


@app.command()
def entries(
    file: FileArgument,
    kind: Annotated[EntryKind | None, typer.Option("--kind", help="Of this kind alone.")] = None,
    tag: Annotated[
        list[str] | None, typer.Option("--tag", metavar="T", help="With this tag; may be repeated.")
    ] = None,
    words: Annotated[
        str, typer.Option("--words", metavar="W", help="With these words in them.")
    ] = "",
    by: Annotated[GroupBy, typer.Option("--by", help="Put together by.")] = GroupBy.SECTION,
    form: Annotated[EntriesFormat, typer.Option("--format")] = EntriesFormat.MARKDOWN,
    bring_in: Annotated[
        Path | None,
        typer.Option("--import", metavar="ANNOTATIONS", help="Bring in Web Annotations (JSON-LD)."),
    ] = None,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="OUT", help="Write to a file.")
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Take the entries of a PDF away, or bring annotations in as entries."""
    with Session(file) as session:
        summary = read_document(session, password_file)
        sha256, facts = session.fingerprint().result(), summary.title or file.stem
        if bring_in is not None:
            _bring_in(session, file, sha256, facts, bring_in)
            return
        wanted = Wanted(frozenset([kind] if kind else []), tags=frozenset(tag or ()), words=words)
        kept = _entries(session, sha256, file, facts)
        section_of = _SectionOf(summary.outline, kept, session)
        if form is EntriesFormat.ANNOTATIONS:
            chosen = tuple(matching(kept, wanted))
            text = session.query("annotations_of", chosen, file.resolve().as_uri()).result()
            put_text(text, output)
            return
        groups = gather(kept, wanted, by, section_of)
        data = export_entries(groups, summary.labels, section_of, form, title=facts)
    if output is not None:
        save_whole(output, data)
    elif form is EntriesFormat.WORD:
        raise WideMarginError("A Word file needs a name.", hint="Give it with -o.")
    else:
        put_text(data.decode("utf-8-sig"), None)


@app.command()
def annotate(
    file: FileArgument,
    output: Annotated[
        Path, typer.Option("-o", "--output", metavar="COPY", help="The annotated copy.")
    ],
    marks_only: Annotated[
        bool, typer.Option("--marks-only", help="Leave out questions, explanations and the like.")
    ] = False,
    author: Annotated[str, typer.Option("--author", help="Whose annotations they are.")] = "",
    password_file: PasswordOption = None,
) -> None:
    """Write a copy of a PDF with its entries as annotations; the file itself stays as it is."""
    with Session(file) as session:
        summary = read_document(session, password_file)
        sha256 = session.fingerprint().result()
        kept = _entries(session, sha256, file, summary.title or file.stem)
        if marks_only:
            own = (EntryKind.MARK, EntryKind.NOTE, EntryKind.CUTTING)
            kept = [entry for entry in kept if entry.kind in own]
        boxed, password = placed(session, kept), session.password
    n = write_annotated(file, output, boxed, author=author, password=password)
    typer.echo(f"{counted(n, 'annotation')} in {output}", err=True)


class _SectionOf:
    """The section path at an entry's place."""

    def __init__(self, outline: Outline, entries: Sequence[Entry], session: Session) -> None:
        self._outline = outline
        anchored = [entry for entry in entries if entry.anchor.spans]
        places = tuple((e.anchor.spans[0].page, e.anchor.spans[0].start) for e in anchored)
        paths = session.query("paths_of", places).result()
        self._paths = {e.id: tuple(path) for e, path in zip(anchored, paths, strict=True)}

    def __call__(self, entry: Entry) -> tuple[str, ...]:
        if entry.id in self._paths:
            return self._paths[entry.id]
        return self._outline.path_at(entry.anchor.page, entry.anchor.y)


def _entries(session: Session, sha256: str, file: Path, title: str) -> Sequence[Entry]:
    """What was kept of a document; of a version before this one at the places of this one."""
    path = default_store_path()
    if not path.exists():
        return []
    store = Store(path)
    try:
        record = store.record_for(sha256, file, "", title)
        kept = list(store.entries(record.id).entries)
    finally:
        store.close()
    return session.anchor_again(tuple(kept)).result() if record.is_new_version else kept


def _bring_in(session: Session, file: Path, sha256: str, title: str, source: Path) -> None:
    try:
        text = source.read_text(encoding="utf-8")
    except (OSError, UnicodeDecodeError) as error:
        raise WideMarginError(
            f"“{source}” cannot be read.", hint="Is it there, and a text file?"
        ) from error
    store = Store(default_store_path())
    try:
        record = store.record_for(sha256, file, "", title)
        known = frozenset(entry.id for entry in store.entries(record.id).entries)
        found, lost = session.query("annotations_in", text, record.id, known).result()
        new = [entry for entry in found if entry.id not in known]
        store.put(record.id, *new)
    finally:
        store.close()
    typer.echo(f"{counted(len(new), 'entry', 'entries')} brought in", err=True)
    if len(found) > len(new):
        typer.echo(f"{len(found) - len(new)} were entries already", err=True)
    for quote in lost:
        typer.echo(f"no place here: “{quote[:120]}”", err=True)
