"""What was said as one sound file (WAV), with a cue for each section.

Cue and label chunks as of the Multimedia Programming Interface (Microsoft and IBM 1991), which
players and editors of sound read.
"""

import struct
import wave
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import NamedTuple

from wide_margin.core.errors import WideMarginError
from wide_margin.core.plain import one_line


class Cue(NamedTuple):
    """Where a section begins in the sound."""

    frame: int
    title: str


def joined_sound(
    parts: Iterable[tuple[Path, str]], target: Path, *, pause: float = 0.25
) -> list[Cue]:
    """Join sound files of one form into one, with cues where a part has a title.

    Args:
        parts: Each file with the title of the section that begins with it, or "".
        target: The file; it is there whole or not at all.
        pause: Seconds of silence after each part.

    Returns:
        The cues, in order.

    Raises:
        WideMarginError: It cannot be written, or there is nothing to write.
    """
    cues: list[Cue] = []
    part_file = target.with_name(f".{target.name}.part")
    try:
        form, n_frames, frames = None, 0, bytearray()
        for path, title in parts:
            with wave.open(str(path), "rb") as part:
                form = form or (part.getnchannels(), part.getsampwidth(), part.getframerate())
                if title:
                    cues.append(Cue(n_frames, title))
                frames += part.readframes(part.getnframes())
                silence = int(pause * form[2])
                frames += bytes(silence * form[0] * form[1])
                n_frames = len(frames) // (form[0] * form[1])
        if form is None:
            raise WideMarginError("There is nothing to say there.", hint="Name another section.")
        with part_file.open("wb") as file, wave.open(file, "wb") as out:
            out.setnchannels(form[0])
            out.setsampwidth(form[1])
            out.setframerate(form[2])
            out.writeframes(bytes(frames))
        _add_cues(part_file, cues)
        part_file.replace(target)
    except (OSError, wave.Error, EOFError) as error:
        part_file.unlink(missing_ok=True)
        raise WideMarginError(
            f"“{target.name}” could not be written.", hint="Is its folder there, and not full?"
        ) from error
    return cues


def _add_cues(path: Path, cues: Sequence[Cue]) -> None:
    """Append the chunks, and set the length that the file's head tells."""
    if not cues:
        return
    points = b"".join(
        struct.pack("<II4sIII", k, cue.frame, b"data", 0, 0, cue.frame)
        for k, cue in enumerate(cues, start=1)
    )
    labels = b"".join(_label(k, cue.title) for k, cue in enumerate(cues, start=1))
    data = path.read_bytes()
    data += _chunk(b"cue ", struct.pack("<I", len(cues)) + points)
    data += _chunk(b"LIST", b"adtl" + labels)
    path.write_bytes(data[:4] + struct.pack("<I", len(data) - 8) + data[8:])


def _label(number: int, title: str) -> bytes:
    text = one_line(title, 200).encode() + b"\0"
    return _chunk(b"labl", struct.pack("<I", number) + text)


def _chunk(name: bytes, data: bytes) -> bytes:
    return name + struct.pack("<I", len(data)) + data + b"\0" * (len(data) % 2)
