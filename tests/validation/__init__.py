"""Checks against sources outside the project: one file per source, its citation on top, an explicit tolerance.

None of the publications is on the machine; where their figures are quoted they are from memory and marked so.
"""
