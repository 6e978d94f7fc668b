"""The command that has a document read aloud."""

import tempfile
from pathlib import Path
from typing import Annotated

import typer

from wide_margin.cli import FileArgument, PasswordOption, app, read_document
from wide_margin.core.answers import WHOLE, Reach
from wide_margin.core.document.spoken import Spoken
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.sound import joined_sound
from wide_margin.core.jobs import CancelToken
from wide_margin.core.plain import counted
from wide_margin.core.services.speech import Espeak, find_engine
from wide_margin.core.session import Session


@app.command()
def say(
    file: FileArgument,
    section: Annotated[
        str | None, typer.Option("--section", metavar="NAME", help="A section: number or heading.")
    ] = None,
    pages: Annotated[
        str | None, typer.Option("--pages", metavar="A-B", help="These pages, as printed.")
    ] = None,
    notes: Annotated[
        bool, typer.Option("--notes", help="With footnotes at the end of their paragraph.")
    ] = False,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="WAV", help="Write to a sound file.")
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Read a document aloud, or into a sound file with a cue for each section."""
    reach: Reach | str = WHOLE
    if section is not None:
        reach = section
    elif pages is not None:
        reach = f"pages {pages}" if "-" in pages else f"page {pages}"
    with Session(file) as session:
        language = read_document(session, password_file).language
        sentences = session.query("spoken", reach, notes).result()
    if not sentences:
        raise WideMarginError("There is nothing to say there.", hint="Name another section.")
    if output is not None:
        n = _write(sentences, language, output)
        typer.echo(f"{counted(len(sentences), 'sentence')}, {counted(n, 'cue')}", err=True)
        return
    engine = find_engine()
    for sentence in sentences:
        typer.echo(f"{sentence.locator.shown}  {sentence.text}")
        engine.say(sentence.text, language, 1.0, CancelToken())
    engine.close()


def _write(sentences: tuple[Spoken, ...], language: str, output: Path) -> int:
    """Say each sentence into a file of its own, and join them; how many cues there are."""
    engine, token = Espeak(), CancelToken()
    with tempfile.TemporaryDirectory() as folder:
        parts = []
        last: tuple[str, ...] = ()
        for k, sentence in enumerate(sentences):
            path = Path(folder) / f"{k:06}.wav"
            engine.write(sentence.text, language, path, token)
            is_new = sentence.locator.path != last and sentence.locator.path
            parts.append((path, sentence.locator.path[-1] if is_new else ""))
            last = sentence.locator.path
        return len(joined_sound(parts, output))
