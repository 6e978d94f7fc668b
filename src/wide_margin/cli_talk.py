"""The command that makes a talk of a document."""

from pathlib import Path
from typing import Annotated

import typer

from wide_margin.cli import FileArgument, PasswordOption, app, read_document
from wide_margin.core.answers import WHOLE, Reach
from wide_margin.core.errors import WideMarginError
from wide_margin.core.export.looks import LOOKS
from wide_margin.core.export.saving import save_whole
from wide_margin.core.export.talk import TalkFormat, talk_as
from wide_margin.core.plain import counted
from wide_margin.core.session import Session
from wide_margin.core.session.picturing import figure_pictures


@app.command()
def talk(
    file: FileArgument,
    section: Annotated[
        str | None, typer.Option("--section", metavar="NAME", help="A section: number or heading.")
    ] = None,
    minutes: Annotated[int, typer.Option("--minutes", min=3, max=120, help="How long it is.")] = 15,
    form: Annotated[TalkFormat, typer.Option("--format")] = TalkFormat.MARKDOWN,
    look: Annotated[
        str, typer.Option("--look", help="One of: " + ", ".join(LOOKS))
    ] = "margin paper",
    night: Annotated[bool, typer.Option("--night", help="Dark sheets.")] = False,
    output: Annotated[
        Path | None, typer.Option("-o", "--output", metavar="OUT", help="Write to a file.")
    ] = None,
    password_file: PasswordOption = None,
) -> None:
    """Make a talk of a document or a section: sheets with points, each with its page."""
    if look not in LOOKS:
        raise WideMarginError(f"There is no look “{look}”.", hint=f"One of {', '.join(LOOKS)}.")
    if output is None and form is TalkFormat.PPTX:
        raise WideMarginError("A presentation needs a name.", hint="Give it with -o.")
    reach: Reach | str = section if section is not None else WHOLE
    with Session(file) as session:
        read_document(session, password_file)
        made = session.query("talk", reach, minutes).result()
        data = talk_as(form, made, look=look, night=night, picture_of=figure_pictures(session))
    if output is None:
        typer.echo(data.decode(), nl=False)
        return
    save_whole(output, data)
    typer.echo(f"{counted(len(made.sheets) + 2, 'sheet')} in {output}", err=True)
