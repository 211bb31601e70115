"""The reference methods of BS 7671 Appendix 4: how a cable is laid, as its ratings distinguish it."""

from __future__ import annotations

from enum import StrEnum


class ReferenceMethod(StrEnum):
    """The reference method that a section is rated by."""

    A = "A"
    B = "B"
    C = "C"
    D = "D"
    E = "E"
    M100 = "100"
    M101 = "101"
    M102 = "102"
    M103 = "103"
