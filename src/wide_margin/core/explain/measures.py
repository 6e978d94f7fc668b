"""Numbers with units in the other system's unit."""

import re

from wide_margin.core.explain.model import Measure
from wide_margin.core.later import regex

_UNITS = {
    # unit: (other unit, factor, offset)
    "mile": ("km", 1.609344), "miles": ("km", 1.609344), "mi": ("km", 1.609344),
    "nautical mile": ("km", 1.852), "nautical miles": ("km", 1.852),
    "yard": ("m", 0.9144), "yards": ("m", 0.9144), "yd": ("m", 0.9144),
    "foot": ("m", 0.3048), "feet": ("m", 0.3048), "ft": ("m", 0.3048),
    "inch": ("cm", 2.54), "inches": ("cm", 2.54), "fathom": ("m", 1.8288), "fathoms": ("m", 1.8288),
    "pound": ("kg", 0.45359237), "pounds": ("kg", 0.45359237), "lb": ("kg", 0.45359237),
    "lbs": ("kg", 0.45359237), "ounce": ("g", 28.349523), "ounces": ("g", 28.349523),
    "oz": ("g", 28.349523), "gallon": ("l", 3.785412), "gallons": ("l", 3.785412),
    "mph": ("km/h", 1.609344), "knot": ("km/h", 1.852), "knots": ("km/h", 1.852),
    "acre": ("ha", 0.404686), "acres": ("ha", 0.404686), "psi": ("kPa", 6.894757),
    "km": ("miles", 0.621371), "kilometre": ("miles", 0.621371), "kilometres": ("miles", 0.621371),
    "kilometer": ("miles", 0.621371), "kilometers": ("miles", 0.621371),
    "m": ("ft", 3.28084), "metre": ("ft", 3.28084), "metres": ("ft", 3.28084),
    "meter": ("ft", 3.28084), "meters": ("ft", 3.28084), "cm": ("in", 0.393701),
    "centimetre": ("in", 0.393701), "centimetres": ("in", 0.393701),
    "centimeter": ("in", 0.393701), "centimeters": ("in", 0.393701),
    "millimetre": ("in", 0.0393701), "millimetres": ("in", 0.0393701), "mm": ("in", 0.0393701),
    "kg": ("lb", 2.204623), "kilogram": ("lb", 2.204623), "kilograms": ("lb", 2.204623),
    "litre": ("US gallons", 0.264172), "litres": ("US gallons", 0.264172),
    "liter": ("US gallons", 0.264172), "liters": ("US gallons", 0.264172),
    "km/h": ("mph", 0.621371), "hectare": ("acres", 2.471054), "hectares": ("acres", 2.471054),
    "ha": ("acres", 2.471054),
}  # fmt: skip
_MEASURE = regex(
    r"(?<![\w.,])(?P<number>\d{1,3}(?:,\d{3})+(?:\.\d+)?|\d+(?:\.\d+)?)\s?(?P<unit>°\s?[CF]|"
    + "|".join(sorted(map(re.escape, _UNITS), key=len, reverse=True))
    + r")(?![\w/²³])"
)


def other_units(text: str) -> tuple[Measure, ...]:
    """The quantities of a text, each in the unit of the other system of measures.

    Rounded to as many figures as are written, two at least. A number before "m" may be one of
    minutes or millions; only what stands with a unit that is plain is given.
    """
    found: dict[str, Measure] = {}
    for match in _MEASURE.finditer(text):
        number = float(match["number"].replace(",", ""))
        unit = match["unit"].replace(" ", "")
        if unit == "°F":
            value, other = (number - 32) / 1.8, "°C"
        elif unit == "°C":
            value, other = number * 1.8 + 32, "°F"
        else:
            other, factor = _UNITS[match["unit"]]
            value = number * factor
        figures = max(2, len(match["number"].replace(".", "").replace(",", "").lstrip("0")))
        found.setdefault(match[0], Measure(match[0], f"{_rounded(value, figures)} {other}"))
    return tuple(found.values())


def _rounded(value: float, figures: int) -> str:
    plain = f"{value:.{figures}g}"
    return f"{float(plain):,.0f}" if abs(float(plain)) >= 100 else f"{float(plain):g}"
