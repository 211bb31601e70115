"""Designing the run: route, boards, protection, materials and prices."""
