"""What the page's form is made from: a control for each parameter; and what lies near some values.

controls_of(drawing)      # [{'name': 'sides', 'kind': 'span', 'low': 3, 'high': 12, …}]
"""

from __future__ import annotations

from typing import Any

from ovlo.program.loading import AnyDrawing
from ovlo.program.parameters import Parameter, shown, typed

Control = dict[str, Any]
Values = dict[str, str]
"""Values as text, as they would be typed on a command line."""

PARTS = 8
"""Into how many parts a range without steps is taken apart for neighbours."""

MOST_CHOICES = 4
"""Choices of a parameter that are shown as neighbours."""


def controls_of(drawing: AnyDrawing) -> list[Control]:
    """The controls of a drawing's parameters."""
    return [_control(parameter) for parameter in typed(drawing._parameters).values()]


def _control(parameter: Parameter) -> Control:
    about: Control = {
        "name": parameter.name,
        "allowed": parameter.allowed,
        "default": parameter.shown_default,
    }
    about["kind"] = parameter.kind.control
    if parameter.kind.choices:
        about["choices"] = [shown(choice) for choice in parameter.kind.choices]
    if parameter.is_number:
        about["low"], about["high"] = parameter.reach
        about["step"] = parameter.step
    return about


def neighbours(controls: list[Control], values: Values) -> list[Values]:
    """The values around some: in each one parameter is another."""
    found = []
    for control in controls:
        name = control["name"]
        now: str = values.get(name) or control["default"]
        found += [values | {name: other} for other in _others(control, now) if other != now]
    return found


def _others(control: Control, now: str) -> list[str]:
    if control["kind"] == "choice":
        choices: list[str] = control["choices"]
        return [choice for choice in choices if choice != now][:MOST_CHOICES]
    if control["kind"] == "switch":
        return ["no" if now == "yes" else "yes"]
    if control["kind"] != "span":
        return []
    low, high = control["low"], control["high"]
    step = control["step"] or (high - low) / PARTS
    try:
        number = float(now)
    except ValueError:
        number = (low + high) / 2
    return [f"{min(max(number + sign * step, low), high):.6g}" for sign in (-1, 1)]
