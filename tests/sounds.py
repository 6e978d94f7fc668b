"""Reading back the cues of sound files that were made."""

import struct
from pathlib import Path

from wide_margin.core.export.sound import Cue


def cues_in(path: Path) -> list[Cue]:
    """The cues of a sound file; none where it has none, or is no such file."""
    data = path.read_bytes()
    frames: dict[int, int] = {}
    titles: dict[int, str] = {}
    at = 12
    while at + 8 <= len(data):
        name, size = data[at : at + 4], struct.unpack_from("<I", data, at + 4)[0]
        body = data[at + 8 : at + 8 + size]
        if name == b"cue ":
            for k in range(struct.unpack_from("<I", body)[0]):
                number, _, _, _, _, frame = struct.unpack_from("<II4sIII", body, 4 + 24 * k)
                frames[number] = frame
        elif name == b"LIST" and body[:4] == b"adtl":
            inner = 4
            while inner + 12 <= len(body):
                length = struct.unpack_from("<I", body, inner + 4)[0]
                number = struct.unpack_from("<I", body, inner + 8)[0]
                text = body[inner + 12 : inner + 8 + length].rstrip(b"\0")
                titles[number] = text.decode("utf-8", "replace")
                inner += 8 + length + length % 2
        at += 8 + size + size % 2
    return [Cue(frame, titles.get(number, "")) for number, frame in sorted(frames.items())]
