#!/bin/sh
# What Qt needs from the system: libraries for a window, and fonts (offscreen Qt without any
# draws no text). Installs what is missing with apt where it may, else prints the one line.
set -u
missing=""
libraries=$(ldconfig -p 2>/dev/null || /sbin/ldconfig -p 2>/dev/null)
need() { # library, package
    case "$libraries" in *"$1"*) ;; *) missing="$missing $2" ;; esac
}
need libEGL.so.1 libegl1
need libGL.so.1 libgl1
need libdbus-1.so.3 libdbus-1-3
need libfontconfig.so.1 libfontconfig1
need libglib-2.0.so.0 libglib2.0-0
need libxkbcommon.so.0 libxkbcommon0
need libxkbcommon-x11.so.0 libxkbcommon-x11-0
need libxcb-cursor.so.0 libxcb-cursor0
need libxcb-icccm.so.4 libxcb-icccm4
need libxcb-keysyms.so.1 libxcb-keysyms1
need libxcb-image.so.0 libxcb-image0
need libxcb-render-util.so.0 libxcb-render-util0
need libxcb-shape.so.0 libxcb-shape0
need libxcb-xinerama.so.0 libxcb-xinerama0
need libxcb-xkb.so.1 libxcb-xkb1
if ! find /usr/share/fonts /usr/local/share/fonts "$HOME/.fonts" "$HOME/.local/share/fonts" \
    -iname 'NotoSerif*' 2>/dev/null | grep -q .; then
    missing="$missing fonts-noto-core"
fi
# Programs that are used where they are there, and gone without where they are not: one recognises
# the text of pages that are only pictures, the other reads aloud.
wanted=""
command -v tesseract >/dev/null 2>&1 || wanted="$wanted tesseract-ocr"
command -v espeak-ng >/dev/null 2>&1 || wanted="$wanted espeak-ng"
[ -n "$missing$wanted" ] || exit 0

line="apt-get update && apt-get install -y$missing"
if ! command -v apt-get >/dev/null 2>&1; then
    [ -n "$missing" ] || exit 0
    echo "Wide Margin needs libraries that are not here; by their Debian names:$missing" >&2
    exit 0
fi
if [ "$(id -u)" = 0 ]; then
    as=""
elif command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then
    as="sudo"
else
    [ -n "$missing" ] || exit 0
    echo "Some system libraries are missing. Run this once, then the same command again:" >&2
    echo "    sudo sh -c '$line'" >&2
    exit 1
fi
echo "Installing with apt:$missing$wanted"
$as apt-get update -qq
if [ -n "$missing" ]; then
    DEBIAN_FRONTEND=noninteractive $as apt-get install -y -qq $missing >/dev/null || {
        echo "apt could not install them. Run this by hand: $line" >&2
        exit 1
    }
fi
for package in $wanted; do
    DEBIAN_FRONTEND=noninteractive $as apt-get install -y -qq "$package" >/dev/null 2>&1 ||
        echo "apt has no $package; it is gone without." >&2
done
exit 0
